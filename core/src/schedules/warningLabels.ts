import { type BankFault, bankFault } from '../figures/bank/bankFault.ts';
import { bankOfSet } from '../figures/bank/ofSet.ts';
import { allStrings, knownString } from '../figures/pv/strings.ts';
import type { Installation } from '../installation/installation.ts';
import { type Known, known, mapKnown, uniquePaths, unknownAt } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import { formatNumber } from '../words/quantity.ts';

export type LabelKind = 'warning' | 'isolation' | 'information' | 'mark';

/** One label: what it says, and where it goes. */
export interface Label {
  readonly place: string;
  readonly kind: LabelKind;
  readonly text: string;
  readonly partId?: string;
  readonly count?: number;
  /** What its figures follow from and nobody has said: they are left open on the label, to be written in. */
  readonly missing?: readonly Path[];
}

/** Room for a figure that is not known. */
const OPEN = '____';
const orOpen = (value: Known<number>): string => (value.known ? formatNumber(value.value) : OPEN);
const missingOf = (...values: readonly Known<unknown>[]): Pick<Label, 'missing'> => {
  const missing = uniquePaths(values.flatMap((one) => (one.known ? [] : one.missing)));
  return missing.length === 0 ? {} : { missing };
};

function sourcesLabel(installation: Installation): Label[] {
  const { site, generators, arrays, stacks } = installation;
  const sources = [
    ...(site.grid === 'none' ? [] : ['the grid']),
    ...(stacks.length > 0 ? ['a battery with inverters'] : []),
    ...(generators.length > 0 ? ['a generator'] : []),
    ...(arrays.length > 0 ? ['solar panels'] : []),
  ];
  if (sources.length < 2) return [];
  return [
    {
      place: 'service board and meter',
      kind: 'warning',
      text: `More than one source: ${sources.join(', ')}. Isolate all of them before work.`,
    },
  ];
}

function boardLabels({ partitions }: Installation): Label[] {
  return partitions
    .filter(({ kind }) => kind !== 'grid')
    .map(({ id, name, kind }) => ({
      place: name,
      partId: `board ${id}`,
      kind: 'warning',
      text:
        kind === 'generator-only'
          ? 'Live from a generator while the grid is away.'
          : kind === 'locked-out'
            ? 'Fed through the inverters; held off while the grid is away.'
            : 'Backed up: stays live while the grid is away.',
    }));
}

/** What somebody has to know before the cover of a battery comes off; where the code asks for it with its short-circuit current. */
function batteryWords(
  installation: Installation,
  maxV: Known<number>,
  fault: Known<{ readonly amperes: number }>,
): string {
  const volts = `up to ${orOpen(maxV)} V`;
  if (!isNorthAmerican(installation))
    return `Battery, direct current, ${volts}. Cannot be switched off inside. No flames, no metal tools or jewellery.`;
  const short = orOpen(mapKnown(fault, ({ amperes }) => Math.ceil(amperes / 100) / 10));
  return `Warning: battery disconnect, ${volts}, short circuit up to ${short} kA. Arc flash and shock: cannot be switched off inside.`;
}

function batteryLabels(installation: Installation): Label[] {
  return installation.stacks.flatMap((compiled): Label[] => {
    const found = bankOfSet(compiled);
    if (found.known && found.value === 'none') return [];
    const bank = found.known && found.value !== 'none' ? found.value : undefined;
    const open = found.known ? [] : found.missing;
    const maxV: Known<number> = bank === undefined ? unknownAt(...open) : known(bank.maxV);
    const fault: Known<BankFault> = bank === undefined ? unknownAt(...open) : bankFault(compiled, bank);
    return [
      {
        place: `battery of ${compiled.stack.name}`,
        partId: `bar ${compiled.stack.id}`,
        kind: 'warning',
        text: batteryWords(installation, maxV, fault),
        ...missingOf(maxV, ...(isNorthAmerican(installation) ? [fault] : [])),
      },
      ...Array.from({ length: bank?.moduleCount ?? 0 }, (_, at): Label => ({
        place: `module ${at + 1} of ${compiled.stack.name}`,
        kind: 'mark',
        text: `Module ${at + 1} of ${compiled.stack.name}: plus and minus at both ends of its lead`,
        count: 2,
      })),
    ];
  });
}

const isNorthAmerican = ({ site }: Installation): boolean => site.codeProfile === 'north-american';

/** Strings of direct current: how high their voltage can be, and what an open switch leaves live. */
function stringLabels(installation: Installation): Label[] {
  return allStrings(installation).map((one): Label => {
    const given = knownString(one, installation.site);
    const coldV = mapKnown(given, ({ volts }) => Math.ceil(volts.coldOpenV));
    const upTo = `, up to ${orOpen(coldV)} V`;
    return {
      place: `string of ${one.array.name} at its input ${one.place.input}`,
      partId: `array ${one.array.id}`,
      kind: 'warning',
      text: isNorthAmerican(installation)
        ? `Warning: electric shock. Solar direct current${upTo}. Both sides of an open switch may be live.`
        : `Solar direct current${upTo}: live in daylight, also when all is switched off. Never part plugs under load.`,
      ...missingOf(coldV),
    };
  });
}

function arrayLabels({ arrays }: Installation): Label[] {
  return arrays.flatMap(({ array }): Label[] => [
    ...(array.coupling === 'ac'
      ? [
          {
            place: array.name,
            partId: `array ${array.id}`,
            kind: 'warning' as const,
            text: 'Solar supply on the AC side. Isolate here as well.',
          },
        ]
      : []),
    ...(array.rapidShutdown === 'fitted'
      ? [
          {
            place: 'service board, beside the switch that starts it',
            partId: `array ${array.id}`,
            kind: 'information' as const,
            text: `Rapid shutdown of ${array.name}: opening this switch takes the voltage off the roof.`,
          },
        ]
      : []),
  ]);
}

/** Warnings about what stays live, in the words that the code profile is used to. Local rules may want others. */
export const warningLabels = (installation: Installation): Label[] => [
  ...sourcesLabel(installation),
  ...boardLabels(installation),
  ...batteryLabels(installation),
  ...stringLabels(installation),
  ...arrayLabels(installation),
];
