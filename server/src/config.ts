import { fileURLToPath } from 'node:url';
import { z } from 'zod';

const environment = z.object({
  DATABASE_URL: z.url({ protocol: /^(mariadb|mysql)$/ }),
  PORT: z.coerce.number().int().min(1).max(65535).default(4600),
  HOST: z.string().default('127.0.0.1'),
  BASTION_FILES: z.string().min(1).optional(),
  BASTION_LOGS: z.string().min(1).optional(),
  BASTION_PHOTOS: z.enum(['folder', 'database']).default('folder'),
  BASTION_METRICS_TOKEN: z.string().min(16).max(200).optional(),
  BASTION_DEMO: z.enum(['on', 'off']).default('on'),
  BASTION_SECURE_COOKIE: z.enum(['on', 'off']).default('off'),
  BASTION_TRUSTED_PROXY: z.string().default(''),
  BASTION_SITE_URL: z.url({ protocol: /^http$/ }).optional(),
  BASTION_SITE_TOKEN: z.string().min(16).optional(),
  BASTION_LIVE_HOSTS: z.string().default(''),
});

const listOf = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '');

/** What the surroundings decide. Read once, at start. */
export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  readonly host: string;
  /** Folder for photos; undefined: beside the program's own data. */
  readonly filesFolder: string | undefined;
  /** Folder for the log; undefined: beside the program's own data. */
  readonly logsFolder: string | undefined;
  /** Where new photos are kept. */
  readonly photosIn: 'folder' | 'database';
  /** Whoever has it may read the figures of the server; undefined: nobody. */
  readonly metricsToken: string | undefined;
  /** Offers one-click demo users on the sign-in page. */
  readonly demo: boolean;
  /** Set behind TLS: the cookie is then sent over TLS alone. */
  readonly secureCookie: boolean;
  /** Addresses or networks of proxies whose word about a caller's address counts. */
  readonly trustedProxies: readonly string[];
  /** Where the simulated sites are opened, and the word that opens them; undefined where there are none. */
  readonly site: { readonly url: string; readonly token: string } | undefined;
  /** Devices beyond this machine that may be read live, by name or address. */
  readonly liveHosts: readonly string[];
}

/** Reads the configuration, or says in a sentence which variable is wrong. */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const parsed = environment.safeParse(env);
  if (!parsed.success) {
    const sentences = parsed.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`);
    throw new Error(`The server cannot start with this environment. ${sentences.join('; ')}`);
  }
  return {
    databaseUrl: parsed.data.DATABASE_URL,
    port: parsed.data.PORT,
    host: parsed.data.HOST,
    filesFolder: parsed.data.BASTION_FILES,
    logsFolder: parsed.data.BASTION_LOGS,
    photosIn: parsed.data.BASTION_PHOTOS,
    metricsToken: parsed.data.BASTION_METRICS_TOKEN,
    demo: parsed.data.BASTION_DEMO === 'on',
    secureCookie: parsed.data.BASTION_SECURE_COOKIE === 'on',
    trustedProxies: listOf(parsed.data.BASTION_TRUSTED_PROXY),
    site:
      parsed.data.BASTION_SITE_URL === undefined || parsed.data.BASTION_SITE_TOKEN === undefined
        ? undefined
        : { url: parsed.data.BASTION_SITE_URL, token: parsed.data.BASTION_SITE_TOKEN },
    liveHosts: listOf(parsed.data.BASTION_LIVE_HOSTS),
  };
}

const ownData = (name: string): string => fileURLToPath(new URL(`../../.data/${name}`, import.meta.url));

/** Where photos lie. */
export const filesFolderOf = ({ filesFolder }: Config): string => filesFolder ?? ownData('files');

/** Where the log lies. */
export const logsFolderOf = ({ logsFolder }: Config): string => logsFolder ?? ownData('logs');
