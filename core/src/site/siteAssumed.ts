import type { Installation } from '../installation/installation.ts';
import type { SiteSet } from './siteTypes.ts';

const list = (words: readonly string[]): string => words.join(', ');

/** What of a set is not stated and therefore played in some way or not at all: each a sentence. A figure that nobody gave is never a silent one. */
export function assumedOfSet(set: SiteSet, { arrays }: Installation): string[] {
  const { name, type, compiled, units } = set;
  const { stack } = compiled;
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  const told = (isMissing: boolean, sentence: string): string[] => (isMissing ? [sentence] : []);
  const unstatedFirmware = units.filter(({ unit }) => unit.firmware === undefined);
  const batteries = Object.values(compiled.batteryTypes);
  const bare = batteries.filter(({ openCircuit }) => openCircuit === undefined);
  const smooth = batteries.filter(({ internalMilliohm }) => internalMilliohm === undefined);
  const own = arrays.filter(
    ({ array }) =>
      array.places?.some(({ stackId }) => stackId === stack.id) === true ||
      compiled.partitions.some(({ id }) => id === array.partitionId),
  );
  const unlit = own.filter(({ array, moduleType }) =>
    array.coupling === 'ac'
      ? array.ratedAcW === undefined
      : array.modulesPerString === undefined || !moduleType.known,
  );
  return [
    ...told(
      type.reconnectDelayS === undefined,
      `How long ${name} watches a source that came is not stated by its type: 60 s are played.`,
    ),
    ...told(
      bank !== undefined && stack.chargeCurrentA === undefined,
      `The charge current of ${name} is not set: what its inverters can is played.`,
    ),
    ...told(
      bank !== undefined && stack.gridChargeW === undefined,
      `What ${name} charges with from the grid is not known: nothing is played.`,
    ),
    ...told(
      type.outputMilliohm === undefined,
      `How far the output of ${name} gives way is not stated by its type: its voltage stands still below the overload.`,
    ),
    ...told(
      units.length > 1 && !set.hasAcLeads,
      `The AC leads of ${name} are not all stated: its units share each line evenly.`,
    ),
    ...told(
      unstatedFirmware.length > 0,
      `Firmware is not recorded of ${list(unstatedFirmware.map(({ label }) => label))}: played as that of the others.`,
    ),
    ...told(
      bare.length > 0,
      `${list(bare.map((one) => one.name))} has no resting curve: a slope of 12 % of nominal is played.`,
    ),
    ...told(
      bank !== undefined && set.circuit === undefined && smooth.length > 0,
      `The inner resistance of ${list(smooth.map((one) => one.name))} is not stated: its string gives no way.`,
    ),
    ...told(
      unlit.length > 0,
      `The sun on ${list(unlit.map(({ array }) => array.name))} is left out: its power is not known.`,
    ),
    ...told(
      set.isOwnBank,
      `Each unit of ${name} has a bank of its own: the one of its hardest-working unit is played.`,
    ),
  ];
}
