import { administer } from './admin.ts';

// A reader that has seen enough closes the pipe: that ends the command, and is no failure of it.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
});

administer(process.argv.slice(2), process.env, (text) => process.stdout.write(text)).then(
  (code) => (process.exitCode = code),
  (error: unknown) => {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    process.exitCode = 2;
  },
);
