import { closeSync, fstatSync, openSync, readFileSync } from 'node:fs';
import {
  advise,
  ADVICE_KINDS,
  type AskedAdvice,
  analyse,
  type Design,
  checkReport,
  formatPath,
  MAX_DOCUMENT_LENGTH,
  readDesignText,
  SAMPLE_TYPES,
  SCHEDULE_KINDS,
  type ScheduleKind,
} from '@bastion/core';
import { drawTo } from './draw.ts';
import { find } from './find.ts';
import { modesReport } from './modes.ts';
import { REHEARSAL_KINDS, type RehearsalKind, rehearsalReport } from './rehearse.ts';
import { writeTransfer } from './transferRecord.ts';
import { wave } from './wave.ts';
import { scheduleCsv, scheduleReport } from './schedule.ts';
import { shareReport } from './share.ts';
import type { Streams } from './streams.ts';

const USAGE = `bastion check FILE.json
bastion advise FILE.json --kind ${ADVICE_KINDS.join('|')}
bastion share FILE.json [--load W]
bastion modes FILE.json
bastion draw FILE.json --out FILE.svg|.dxf|.pdf [--mode M]
bastion rehearse FILE.json --kind ${REHEARSAL_KINDS.join('|')} [--seed N] [--nights N] [--start H] [--hours H] [--month M] [--sky 0..1] [--motor CIRCUIT/ITEM]
                 [--pattern NAME|H,H] [--full] [--lose unit:ID|module:ID] [--wave OUT.cff]
bastion find FILE.json --symptom NAME [--answers ID=good|bad|3.2,…]
bastion wave FILE.cff|.cfg|.csv [--nominal V] [--hz HZ] [--band 0..1] [--band-hz HZ] [--transfer MS]
bastion schedule FILE.json --kind ${SCHEDULE_KINDS.join('|')} [--csv]

check   prints the findings of a design document in every operating mode as JSON, with the verdict and the causes.
        Exit code: 0 nothing over its limit but what is accepted, 1 something over, 2 the file cannot be used.
advise  prints proposals as JSON: edits with what the design comes to before and after.
        Exit code: 0 something is proposed, 1 nothing to propose, 2 the file cannot be used.
share   prints the current of each battery module as JSON, at the design's load or at W on the AC side.
        Exit code: 0 solved, 1 not known or not to be had, 2 the file cannot be used.
modes   prints for every operating mode what is live and from what, the bonds on each live neutral, and faults with their way.
        Exit code: 0 no fault, 1 a fault or something that is not known, 2 the file cannot be used.
rehearse plays the transfer, one outage minute by minute, or many of them, and prints what came of it as JSON.
        --wave writes the rehearsed transfer of the first set as a record like one captured on site.
        Exit code: 0 played, 1 something is missing for it, 2 the file or an option cannot be used.
find    prints the next measurement for something that is seen, and what may still be wrong.
        Exit code: 0 something to measure or mend, 1 nothing, 2 the file or an option cannot be used.
wave    measures a capture of a transfer or a start: gap, dip, overshoot, frequency, phase, harmonics, inrush.
        Exit code: 0 all inside what is expected, 1 one outside, 2 the file or an option cannot be used.
schedule prints the rows of one schedule as JSON, or as CSV.
        Exit code: 0 nothing in it over its limit, 1 something over, 2 the file cannot be used.
draw    writes the single line as one mode has it (the first, unless --mode names another).
        Exit code: 0 written, 1 it cannot be drawn or written, 2 the file cannot be used.
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

/** The design in a file; undefined after its problems have been told. */
function readFile(file: string, streams: Streams): Design | undefined {
  const read = readText(file);
  if (!read.ok) {
    streams.error(`${read.message}\n`);
    return undefined;
  }
  const design = readDesignText(read.text, SAMPLE_TYPES);
  if (design.ok) return design.value;
  for (const problem of design.problems) streams.error(`${formatPath(problem.path)}: ${problem.message}\n`);
  return undefined;
}

function check(file: string, streams: Streams): number {
  const design = readFile(file, streams);
  if (design === undefined) return 2;
  const report = checkReport(analyse(design, SAMPLE_TYPES), SAMPLE_TYPES);
  streams.out(`${JSON.stringify(report, null, 2)}\n`);
  return report.findings.some(({ state, accepted }) => state === 'over' && accepted === undefined) ? 1 : 0;
}

function adviseOn(file: string, kind: AskedAdvice, streams: Streams): number {
  const design = readFile(file, streams);
  if (design === undefined) return 2;
  const advice = advise(kind, design, SAMPLE_TYPES);
  streams.out(`${JSON.stringify(advice, null, 2)}\n`);
  return advice.proposals.length > 0 ? 0 : 1;
}

function share(file: string, loadText: string | undefined, streams: Streams): number {
  const loadW = loadText === undefined ? undefined : Number(loadText);
  if (loadW !== undefined && !(Number.isFinite(loadW) && loadW >= 0)) {
    streams.error(`--load ${String(loadText)}: a load in W is needed\n`);
    return 2;
  }
  const design = readFile(file, streams);
  if (design === undefined) return 2;
  const outcome = shareReport(design, loadW);
  if (!outcome.ok) {
    streams.error(`${outcome.message}\n`);
    return 1;
  }
  streams.out(`${JSON.stringify(outcome.report, null, 2)}\n`);
  return 0;
}

function modes(file: string, streams: Streams): number {
  const design = readFile(file, streams);
  if (design === undefined) return 2;
  const report = modesReport(design);
  if (report === undefined) {
    streams.error('Not known yet: the supply of the site.\n');
    return 1;
  }
  streams.out(`${JSON.stringify(report, null, 2)}\n`);
  return report.modes.some(({ faults }) => faults.length > 0) ? 1 : 0;
}

function rehearse(file: string, kind: RehearsalKind, options: readonly string[], streams: Streams): number {
  const design = readFile(file, streams);
  if (design === undefined) return 2;
  const at = options.indexOf('--wave');
  const out = at < 0 ? undefined : (options[at + 1] ?? '');
  const asked = at < 0 ? options : [...options.slice(0, at), ...options.slice(at + 2)];
  if (out !== undefined) {
    const written =
      kind === 'transfer' ? writeTransfer(design, out) : '--wave: only a transfer has a waveform';
    if (written !== undefined) {
      streams.error(`${written}\n`);
      return 2;
    }
  }
  const outcome = rehearsalReport(design, kind, asked);
  if (!outcome.ok) {
    streams.error(`${outcome.message}\n`);
    return 2;
  }
  const text = JSON.stringify(outcome.value, null, 2);
  streams.out(`${text}\n`);
  return text.includes('"missing"') ? 1 : 0;
}

function schedule(file: string, kind: ScheduleKind, isCsv: boolean, streams: Streams): number {
  const design = readFile(file, streams);
  if (design === undefined) return 2;
  const report = scheduleReport(design, kind);
  streams.out(isCsv ? scheduleCsv(report) : `${JSON.stringify(report, null, 2)}\n`);
  return report.rows.some(({ state }) => state === 'over') ? 1 : 0;
}

async function draw(file: string, rest: readonly string[], streams: Streams): Promise<number> {
  const options = new Map<string, string>();
  for (let at = 0; at + 1 < rest.length; at += 2) options.set(rest[at] ?? '', rest[at + 1] ?? '');
  const out = options.get('--out');
  const isKnown = [...options.keys()].every((key) => key === '--out' || key === '--mode');
  if (out === undefined || !isKnown || rest.length % 2 !== 0) {
    streams.error(USAGE);
    return 2;
  }
  const design = readFile(file, streams);
  if (design === undefined) return 2;
  const outcome = await drawTo(design, out, options.get('--mode'));
  if (!outcome.ok) streams.error(`${outcome.message}\n`);
  return outcome.ok ? 0 : 1;
}

/** Runs one command and returns its exit code. */
export async function run(args: readonly string[], streams: Streams): Promise<number> {
  const [command, file, ...rest] = args;
  if (command === 'check' && file !== undefined && rest.length === 0) return check(file, streams);
  if (command === 'modes' && file !== undefined && rest.length === 0) return modes(file, streams);
  if (command === 'draw' && file !== undefined) return draw(file, rest, streams);
  const played = REHEARSAL_KINDS.find((one) => one === rest[1]);
  if (command === 'find' && file !== undefined) {
    const design = readFile(file, streams);
    return design === undefined ? 2 : find(design, rest, streams);
  }
  if (command === 'wave' && file !== undefined) return wave(file, rest, streams);
  if (command === 'rehearse' && file !== undefined && rest[0] === '--kind' && played !== undefined)
    return rehearse(file, played, rest.slice(2), streams);
  const wanted = SCHEDULE_KINDS.find((one) => one === rest[1]);
  const isCsv = rest[2] === '--csv';
  if (
    command === 'schedule' &&
    file !== undefined &&
    rest[0] === '--kind' &&
    wanted !== undefined &&
    rest.length === (isCsv ? 3 : 2)
  )
    return schedule(file, wanted, isCsv, streams);
  if (command === 'share' && file !== undefined && rest.length === 0) return share(file, undefined, streams);
  if (command === 'share' && file !== undefined && rest[0] === '--load' && rest.length === 2)
    return share(file, rest[1], streams);
  const kind = ADVICE_KINDS.find((one) => one === rest[1]);
  if (
    command === 'advise' &&
    file !== undefined &&
    rest[0] === '--kind' &&
    rest.length === 2 &&
    kind !== undefined
  )
    return adviseOn(file, kind, streams);
  if (command === '--help' || command === 'help') {
    streams.out(USAGE);
    return 0;
  }
  streams.error(USAGE);
  return 2;
}
