import { administer } from './admin.ts';

administer(process.argv.slice(2), process.env, (text) => process.stdout.write(text)).then(
  (code) => (process.exitCode = code),
  (error: unknown) => {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    process.exitCode = 2;
  },
);
