// Everything that must be on the machine before anything of ours can run.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { firstExisting, root, runToEnd } from './run.mjs';
import { Sentence } from './sentence.mjs';

/** Refuses to go on with a Node that the packages do not run on. */
export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new Sentence(`Node.js 20.19 or newer is needed; this is ${process.versions.node}.`);
  }
}

/** Installs the npm packages when they are missing or are not the ones of the lock file. */
export function ensurePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules', '.bastion-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.error('Installing packages…');
  if (runToEnd('npm', ['ci', '--loglevel=error']) !== 0) {
    throw new Sentence('The npm packages could not be installed. Run `npm ci` and look at what it says.');
  }
  writeFileSync(stamp, lock);
}

function ensureDebian(packageName, find) {
  const found = find();
  if (found !== undefined) return found;
  const command = `apt-get install -y --no-install-recommends ${packageName}`;
  const isRoot = process.getuid?.() === 0;
  if (!isRoot || firstExisting(['/usr/bin/apt-get']) === undefined) {
    throw new Sentence(
      `${packageName} is needed and not installed. Install it with: ${isRoot ? '' : 'sudo '}${command}`,
    );
  }
  console.error(`Installing ${packageName}…`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const install = () =>
    runToEnd('apt-get', ['install', '-y', '-qq', '--no-install-recommends', packageName], {
      quiet: true,
      env,
    });
  if (install() !== 0) {
    runToEnd('apt-get', ['update', '-qq'], { quiet: true, env });
    if (install() !== 0) throw new Sentence(`${packageName} could not be installed. Try: ${command}`);
  }
  const now = find();
  if (now === undefined)
    throw new Sentence(`${packageName} was installed, but its program is not where it is expected.`);
  return now;
}

/** Where the MariaDB server and its set-up program are; installs them when they are missing and it may. */
export function ensureMariadb() {
  const server = ensureDebian('mariadb-server', () =>
    firstExisting(['/usr/sbin/mariadbd', '/usr/libexec/mariadbd', '/usr/local/bin/mariadbd']),
  );
  const setUp = firstExisting(['/usr/bin/mariadb-install-db', '/usr/local/bin/mariadb-install-db']);
  if (setUp === undefined)
    throw new Sentence('mariadb-install-db is missing. Install it with: apt-get install -y mariadb-server');
  return { server, setUp };
}

export const ensureChromium = () => ensureDebian('chromium', () => firstExisting(['/usr/bin/chromium']));

/** Chromium without what belongs to a window, which works a third less for the same pages. Not every Debian has it: then the whole one. */
export function ensureHeadlessChromium() {
  try {
    return ensureDebian('chromium-headless-shell', () => firstExisting(['/usr/bin/chromium-headless-shell']));
  } catch {
    return ensureChromium();
  }
}

export const ensurePdftotext = () =>
  ensureDebian('poppler-utils', () => firstExisting(['/usr/bin/pdftotext']));
