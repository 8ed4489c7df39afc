import { randomInt } from 'node:crypto';
import { z } from 'zod';
import { controlOf } from './control.ts';
import { serveModbus } from './modbusServer.ts';
import { Sites } from './sites.ts';

const environment = z.object({
  BASTION_SITE_PORT: z.coerce.number().int().min(1).max(65535),
  BASTION_SITE_CONTROL_PORT: z.coerce.number().int().min(1).max(65535),
  BASTION_SITE_TOKEN: z.string().min(16),
});

/** The simulated sites answer on this machine alone. */
const HOST = '127.0.0.1';
const EVERY_MS = 100;

async function main(): Promise<void> {
  const config = environment.parse(process.env);
  const sites = new Sites({
    nowMs: () => performance.now(),
    seed: () => randomInt(2 ** 31),
    host: HOST,
    port: () => config.BASTION_SITE_PORT,
  });
  const modbus = await serveModbus(sites, HOST, config.BASTION_SITE_PORT);
  const control = controlOf(sites, config.BASTION_SITE_TOKEN);
  const timer = setInterval(() => sites.advance(), EVERY_MS);
  const stop = (): void => {
    clearInterval(timer);
    void control
      .close()
      .then(() => modbus.close())
      .then(() => process.exit(0));
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  await control.listen({ host: HOST, port: config.BASTION_SITE_CONTROL_PORT });
  process.stdout.write(`listening ${HOST}:${config.BASTION_SITE_PORT}\n`);
}

main().catch((error: unknown) => {
  process.stderr.write(`The simulated site: ${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
