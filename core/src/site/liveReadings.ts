import { fittedModules } from '../figures/bank/bank.ts';
import type { Installation } from '../installation/installation.ts';
import type { ProcedureStep, ReadingSpec } from '../procedure/schema.ts';

/** Where a reading of the test comes from at a device that is read live: one of its figures, times a factor. */
export interface LiveSource {
  readonly key: string;
  readonly factor: number;
}

type Figures = Readonly<Record<string, number | null>>;

/** Sets, units and modules as they are counted in the register map: through the whole job, in its order. */
function numbers({ stacks }: Pick<Installation, 'stacks'>) {
  const units = stacks.flatMap(({ stack }) => stack.units.map(({ id }) => `${stack.id}/${id}`));
  const modules = stacks.flatMap(({ stack }) =>
    typeof stack.bank === 'object' ? fittedModules(stack.bank).map(({ id }) => `${stack.id}/${id}`) : [],
  );
  return {
    set: (stackId: string): number => stacks.findIndex(({ stack }) => stack.id === stackId) + 1,
    unit: (stackId: string, unitId: string): number => units.indexOf(`${stackId}/${unitId}`) + 1,
    module: (stackId: string, moduleId: string): number => modules.indexOf(`${stackId}/${moduleId}`) + 1,
  };
}

/** The set that a step is about: its id ends or goes on after the id of that set. */
const stackOf = ({ stacks }: Pick<Installation, 'stacks'>, stepId: string): string | undefined =>
  stacks
    .map(({ stack }) => stack.id)
    .sort((a, b) => b.length - a.length)
    .find((id) => `${stepId}-`.includes(`-${id}-`));

const PER_LINE: Readonly<Record<string, string>> = { voltage: 'voltageV', current: 'loadA' };
const PER_SET: Readonly<Record<string, string>> = {
  frequency: 'frequencyHz',
  'battery-current': 'batteryA',
  'modules-seen': 'modulesSeen',
  'units-on': 'unitsSeen',
  transfer: 'transferMs',
  'reconnect-delay': 'returnS',
  'charge-power': 'chargeW',
  'hours-run': 'islandS',
};
/** Where the reading has another unit than the figure. */
const FACTORS: Readonly<Record<string, number>> = { 'hours-run': 1 / 3600 };

/**
 * Which figures of a device answer a reading of the test; undefined where no device can, because a hand, an eye or an instrument of
 * its own has to.
 */
export function liveSource(
  installation: Pick<Installation, 'stacks' | 'supply'>,
  step: Pick<ProcedureStep, 'id'>,
  reading: Pick<ReadingSpec, 'id' | 'kind'>,
): LiveSource | undefined {
  if (reading.kind === 'confirmation' || !installation.supply.known) return undefined;
  const { lines } = installation.supply.value;
  const number = numbers(installation);
  const one = (block: string, at: number, field: string): LiveSource | undefined =>
    at > 0 ? { key: `${block}.${at}.${field}`, factor: FACTORS[reading.id] ?? 1 } : undefined;
  const stackId = stackOf(installation, step.id) ?? installation.stacks[0]?.stack.id ?? '';
  const perSet = PER_SET[reading.id];
  if (perSet !== undefined) return one('set', number.set(stackId), perSet);
  const lineAt = (text: string): number => lines.findIndex((line) => line === text) + 1;
  const dash = reading.id.lastIndexOf('-');
  const perLine = PER_LINE[reading.id.slice(0, dash)];
  if (perLine !== undefined) return one('line', lineAt(reading.id.slice(dash + 1)), perLine);
  if (reading.id === 'lowest-voltage')
    return one('line', lineAt(step.id.slice(step.id.lastIndexOf('-') + 1)), 'lowestV');
  const [kind, ...rest] = reading.id.split('-');
  const own = rest.join('-');
  if (kind === 'unit') return one('unit', number.unit(stackId, own), 'currentA');
  if (kind === 'battery') return one('unit', number.unit(stackId, own), 'batteryV');
  const moduleId = stackId === '' ? '' : own.replace(`voltage-${stackId}-`, '');
  if (kind === 'module') return one('module', number.module(stackId, moduleId), 'voltageV');
  return undefined;
}

/** The figure of a reading in what was read; undefined where it is not there. */
export function liveFigure({ key, factor }: LiveSource, figures: Figures): number | undefined {
  const value = figures[key];
  return value === undefined || value === null ? undefined : value * factor;
}
