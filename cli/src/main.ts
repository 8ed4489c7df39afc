import { run } from './run.ts';

process.exitCode = run(process.argv.slice(2), {
  out: (text) => process.stdout.write(text),
  error: (text) => process.stderr.write(text),
});
