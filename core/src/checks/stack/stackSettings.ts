import type { CompiledStack, Installation } from '../../installation/installation.ts';
import { type Known, known, unknownAt } from '../../values/known.ts';
import type { SetSettings } from '../../installation/facts.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

const MINUTES = 24 * 60;
const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Minute of the day of an hour as it is set. */
const minuteOf = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3));

type Window = NonNullable<SetSettings['windows']>[number];

/** How long a window lasts, in minutes; one that ends where it begins holds all day. */
const lengthOf = ({ from, to }: Window): number =>
  ((minuteOf(to) - minuteOf(from) + MINUTES - 1) % MINUTES) + 1;

/** Whether two windows of a day share a minute. */
const overlap = (a: Window, b: Window): boolean => {
  const after = (minuteOf(b.from) - minuteOf(a.from) + MINUTES) % MINUTES;
  return after < lengthOf(a) || MINUTES - after < lengthOf(b);
};

function windowReasons({ windows = [] }: SetSettings, gridChargeW: number | undefined): string[] {
  const both = windows.flatMap((one, at) =>
    windows
      .slice(at + 1)
      .filter((other) => overlap(one, other))
      .map((other) => `the windows ${one.from} to ${one.to} and ${other.from} to ${other.to} overlap`),
  );
  return [
    ...both,
    ...(windows.some(({ does }) => does === 'charge') && gridChargeW === 0
      ? ['a window charges from the grid, and charging from the grid is off']
      : []),
  ];
}

function generatorReasons({ generatorFromSoc, generatorToSoc }: SetSettings, cutoffSoc?: number): string[] {
  if (generatorFromSoc === undefined) return [];
  return [
    ...(generatorToSoc !== undefined && generatorToSoc <= generatorFromSoc
      ? [
          `the generator is called at ${percent(generatorFromSoc)} and let go at ${percent(generatorToSoc)}: it would stop before it has charged anything`,
        ]
      : []),
    ...(cutoffSoc !== undefined && generatorFromSoc <= cutoffSoc
      ? [
          `the generator is called at ${percent(generatorFromSoc)}, and the set stops at ${percent(cutoffSoc)} before that`,
        ]
      : []),
  ];
}

function currentReasons(
  { dischargeCurrentA, chargeCurrentA }: CompiledStack['stack'],
  type: InverterType,
): string[] {
  const above = (what: string, set: number | undefined, most: number): string[] =>
    set !== undefined && set > most ? [`${what} is set to ${set} A, and the type takes ${most} A`] : [];
  return [
    ...above('discharge', dischargeCurrentA, type.maxDischargeA),
    ...above('charging', chargeCurrentA, type.maxChargeA),
  ];
}

/** What the rule needs: undefined where nothing is set, for then there is nothing to judge. */
function given({ stack, type }: CompiledStack): Known<InverterType> | undefined {
  const { settings = {}, dischargeCurrentA, chargeCurrentA } = stack;
  const isSet =
    Object.keys(settings).length > 0 || dischargeCurrentA !== undefined || chargeCurrentA !== undefined;
  if (!isSet) return undefined;
  if (settings.workMode === 'by-time' && (settings.windows ?? []).length === 0)
    return unknownAt(['stacks', stack.id, 'settings', 'windows']);
  return type;
}

function reasonsOf({ site }: Installation, { stack }: CompiledStack, type: InverterType): string[] {
  const { settings = {} } = stack;
  const { workMode } = settings;
  return [
    ...currentReasons(stack, type),
    ...(workMode !== undefined && workMode !== 'by-time' && (settings.windows ?? []).length > 0
      ? ['windows by time are set, and the work mode does not go by them']
      : []),
    ...(workMode === 'by-time' && site.grid === 'none'
      ? ['the site has no grid: a work mode by time has nothing to go by']
      : []),
    ...windowReasons(settings, stack.gridChargeW),
    ...generatorReasons(settings, typeof stack.bank === 'object' ? stack.bank.cutoffSoc : undefined),
  ];
}

/** What is set of a set, against its type and against each other. */
export const stackSettings: Check<'stack.settings'> = checkOf({
  id: 'stack.settings',
  title: 'Settings of the set fit its type and each other',
  family: 'stack',
  modes: 'once',
  sentences: rulingSentences('whether its settings fit each other'),
  run: (context) =>
    eachRuling(
      stackSettings.id,
      context,
      'Largest currents of the type; levels of the bank; the windows of one day.',
      stackSubject,
      (compiled) => {
        const type = given(compiled);
        return type?.known === true ? known(type.value) : type;
      },
      (compiled, type) => ({
        reasons: reasonsOf(context.installation, compiled, type),
        kept: 'what is set fits its type, and fits together',
      }),
    ),
});
