import { closeSync, fstatSync, openSync, readFileSync } from 'node:fs';
import {
  analyse,
  checkReport,
  formatPath,
  MAX_DOCUMENT_LENGTH,
  readDesignText,
  SAMPLE_TYPES,
} from '@bastion/core';

export interface Streams {
  readonly out: (text: string) => void;
  readonly error: (text: string) => void;
}

const USAGE = `bastion check FILE.json

Reads a design document and prints its findings in every operating mode as JSON.
Exit code: 0 nothing over its limit, 1 something over, 2 the file cannot be used.
`;

/** Above this many bytes a file is not even read: no character of UTF-8 takes more than four. */
const MAX_BYTES = MAX_DOCUMENT_LENGTH * 4;

function readText(file: string): { ok: true; text: string } | { ok: false; message: string } {
  let handle: number | undefined;
  try {
    handle = openSync(file, 'r');
    if (fstatSync(handle).size > MAX_BYTES)
      return { ok: false, message: `${file}: the file is too large to be a design` };
    return { ok: true, text: readFileSync(handle, 'utf8') };
  } catch (error) {
    return { ok: false, message: `${file}: ${error instanceof Error ? error.message : 'cannot be read'}` };
  } finally {
    if (handle !== undefined) closeSync(handle);
  }
}

function check(file: string, streams: Streams): number {
  const read = readText(file);
  if (!read.ok) {
    streams.error(`${read.message}\n`);
    return 2;
  }
  const design = readDesignText(read.text, SAMPLE_TYPES);
  if (!design.ok) {
    for (const problem of design.problems) streams.error(`${formatPath(problem.path)}: ${problem.message}\n`);
    return 2;
  }
  const report = checkReport(analyse(design.value, SAMPLE_TYPES));
  streams.out(`${JSON.stringify(report, null, 2)}\n`);
  return report.findings.some((finding) => finding.state === 'over') ? 1 : 0;
}

/** Runs one command and returns its exit code. */
export function run(args: readonly string[], streams: Streams): number {
  const [command, file, ...rest] = args;
  if (command === 'check' && file !== undefined && rest.length === 0) return check(file, streams);
  if (command === '--help' || command === 'help') {
    streams.out(USAGE);
    return 0;
  }
  streams.error(USAGE);
  return 2;
}
