import type { SiteCommand } from './siteCommands.ts';
import type { SiteSetting } from './siteFaults.ts';
import type { SitePlan } from './siteTypes.ts';
import { type MapRow, registersOf, rowsOfSite, type RegisterType } from './registerTable.ts';
import { decodeValue } from './registerValues.ts';

type Do = (plan: SitePlan, index: number, value: number) => SiteCommand | undefined;

function unitAt(plan: SitePlan, index: number): { stackId: string; unitId: string } | undefined {
  for (const { stackId, units } of plan.sets) {
    const unit = units.find(({ number }) => number === index + 1);
    if (unit !== undefined) return { stackId, unitId: unit.unit.id };
  }
  return undefined;
}

const setting =
  (name: SiteSetting, scale = 1): Do =>
  (plan, index, written) => {
    const value = written * scale;
    const set = plan.sets[index];
    return set === undefined ? undefined : { do: 'setting', stackId: set.stackId, setting: name, value };
  };

/** What writing a field does, by block and field. */
const WRITES: Readonly<Record<string, Do>> = {
  'line.testLoadW': (_, line, watts) => ({ do: 'test-load', line, watts }),
  'set.backup': setting('backup'),
  'set.chargeA': setting('charge'),
  'set.count': setting('count'),
  'set.clockSet': setting('clock'),
  'set.gridChargeW': setting('grid-charge'),
  'set.generatorChargeW': setting('generator-charge'),
  'set.cutoff': setting('cutoff', 0.01),
  'set.battery': (plan, index, value) => {
    const set = plan.sets[index];
    return set === undefined || set.bank === 'none'
      ? undefined
      : { do: 'battery', stackId: set.stackId, closed: value !== 0 };
  },
  'site.isolator': (_plan, _index, value) => ({ do: 'isolator', closed: value !== 0 }),
  'unit.on': (plan, index, value) => {
    const unit = unitAt(plan, index);
    return unit === undefined ? undefined : { do: 'unit', ...unit, on: value !== 0 };
  },
  'generator.call': (plan, index, value) => {
    const generator = plan.generators[index];
    return generator === undefined
      ? undefined
      : { do: 'generator', generatorId: generator.generatorId, run: value !== 0 };
  },
  'circuit.on': (plan, index, value) => {
    const circuit = plan.circuits[index];
    return circuit === undefined
      ? undefined
      : { do: 'circuit', circuitId: circuit.circuitId, on: value !== 0 };
  },
};

/** Why a write is refused. */
export type WriteProblem = 'no such register' | 'read only' | 'not a whole figure' | 'out of range';

const isWhole = ({ type }: { type: RegisterType }, words: readonly number[]): boolean =>
  registersOf(type) === words.length;

/** What writing these registers means: a command for each figure, or why it is refused. A figure is written whole or not at all. */
export function commandsOfWrite(
  plan: SitePlan,
  counts: Readonly<Record<string, number | null>>,
  address: number,
  words: readonly number[],
):
  | { readonly ok: true; readonly commands: readonly SiteCommand[] }
  | { readonly ok: false; readonly problem: WriteProblem } {
  const rows = rowsOfSite(counts);
  const commands: SiteCommand[] = [];
  let at = address;
  while (at < address + words.length) {
    const row: MapRow | undefined = rows.find((one) => one.address === at);
    if (row === undefined)
      return {
        ok: false,
        problem: rows.some((one) => one.address + 1 === at && registersOf(one.type) === 2)
          ? 'not a whole figure'
          : 'no such register',
      };
    const own = words.slice(at - address, at - address + registersOf(row.type));
    if (!isWhole(row, own)) return { ok: false, problem: 'not a whole figure' };
    if (row.access === 'read') return { ok: false, problem: 'read only' };
    const value = decodeValue(row, own);
    // The site is one: its fields have no number.
    const [block = '', ...rest] = row.key.split('.');
    const field = rest.at(-1) ?? '';
    const command =
      value === null || value === undefined
        ? undefined
        : WRITES[`${block}.${field}`]?.(plan, Number(rest[0]) - 1, value);
    if (command === undefined) return { ok: false, problem: 'out of range' };
    commands.push(command);
    at += own.length;
  }
  return { ok: true, commands };
}
