import type { Analysis } from '../checks/analyse.ts';
import { isOwnBank } from '../installation/ownBank.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { Line } from '../values/quantities.ts';
import { formatQuantity } from '../words/quantity.ts';
import { batteryW, carriesW, fedLines, type Given, givenFor, outputW, takesOneLine } from './loadSteps.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import { aroundSpec, confirmation, islandFrequencySpec, voltageSpec } from './specs.ts';

/** The most uneven load that a set may see: so much on one line, so much on each of the others. */
interface Uneven {
  readonly onW: number;
  readonly otherW: number;
  readonly setBy: string;
}

/** How a set is tested uneven: it feeds one line; its load steps load one line alone; or by a step of its own. */
export type ImbalanceTest = 'one line' | 'by the load steps' | 'by itself';

/** Of a set whose figures are known; undefined else. */
export function imbalanceTest(
  installation: Installation,
  compiled: CompiledStack,
): ImbalanceTest | undefined {
  const given = givenFor(installation, compiled);
  if (!given.known) return undefined;
  if (fedLines(given.value).length < 2) return 'one line';
  return takesOneLine(given.value, compiled.stack) ? 'by the load steps' : 'by itself';
}

/**
 * One of n lines with P, the others with x. Behind an autotransformer x = 0 and P = V · I_n at most. By the limit m of a type
 * (P − x) / mean = m: x = P · (n − m) / (n + m · (n − 1)). Never more than the line, the output, the set and the bank carry.
 */
function unevenLoad(given: Given, index: number, { neutralA, limit }: Limits, banks: number): Uneven {
  const { capability, lines, lineVoltageV, type } = given;
  const count = fedLines(given).length;
  const share = neutralA === undefined ? (count - limit) / (count + limit * (count - 1)) : 0;
  const wholes = 1 + (count - 1) * share;
  const line = lines[index] ?? 'L1';
  const limits: readonly (readonly [number, string])[] = [
    [carriesW(given, index), 'the inverters'],
    [Math.min(capability.totalW, capability.totalVa) / wholes, 'the inverters'],
    [(banks * batteryW(given)) / wholes, 'the battery bank'],
    [outputW(given, type.backupPortA, line), 'the backup output'],
    ...(neutralA === undefined
      ? []
      : [[lineVoltageV * neutralA, 'the neutral of the autotransformer'] as const]),
  ];
  const [onW, setBy] = limits.reduce((least, one) => (one[0] < least[0] ? one : least));
  return { onW, otherW: onW * share, setBy };
}

/** Banks that give the load together: of sets whose units each have one, those of the units that the loaded line has in any case. */
const banksOf = ({ stack }: CompiledStack, { capability }: Given): number =>
  isOwnBank(stack) ? Math.min(...capability.unitsOnLine.filter((units) => units > 0)) : 1;

interface Limits {
  readonly neutralA: number | undefined;
  readonly limit: number;
}

/** What bounds how uneven a set may be loaded: its autotransformer, else what its type states. */
function limitsOf({ autotransformer, type }: CompiledStack): Limits | readonly string[] {
  if (!autotransformer.known) return ['autotransformer type'];
  if (autotransformer.value !== 'none') return { neutralA: autotransformer.value.neutralA, limit: 0 };
  const limit = type.known ? type.value.imbalanceLimit : undefined;
  return limit === undefined ? ['imbalance limit of the type'] : { neutralA: undefined, limit };
}

const isLimits = (found: Limits | readonly string[]): found is Limits => 'limit' in found;

function readingsOf(
  { installation }: Analysis,
  compiled: CompiledStack,
  given: Given,
  on: Line,
  { onW, otherW }: Uneven,
): ReadingSpec[] {
  const { defaults } = installation;
  const { lineVoltageV, bank, type } = given;
  const fed = fedLines(given).map(({ line }) => line);
  const clamp = { unit: 'A', instrument: 'clamp meter' } as const;
  const tolerance = defaults.testLoadTolerance.value;
  const current = (line: Line): ReadingSpec[] => {
    const watts = line === on ? onW : otherW;
    return watts === 0
      ? []
      : [
          aroundSpec(
            { ...clamp, id: `current-${line}`, label: `Load current ${line}` },
            watts / lineVoltageV,
            tolerance,
          ),
        ];
  };
  return [
    ...fed.flatMap((line) => [...current(line), voltageSpec(installation, line)]),
    // Resistive load: what one line has more than the others returns by the neutral, 120° or 180° apart alike.
    aroundSpec(
      { ...clamp, id: 'neutral-current', label: 'Current in the neutral' },
      (onW - otherW) / lineVoltageV,
      tolerance,
    ),
    islandFrequencySpec(installation, compiled),
    // Each of several banks sees what its own unit does.
    ...(bank === 'none' || isOwnBank(compiled.stack)
      ? []
      : [
          aroundSpec(
            { id: 'battery-current', label: 'Battery current', unit: 'A', instrument: 'DC clamp meter' },
            (onW + (fed.length - 1) * otherW) / (type.efficiency * bank.nominalV),
            defaults.batteryCurrentTolerance.value,
          ),
        ]),
    ...(compiled.autotransformer.known && compiled.autotransformer.value !== 'none'
      ? [confirmation('thermal', 'The thermal sensor of the autotransformer stayed silent')]
      : []),
  ];
}

function imbalanceStep(
  analysis: Analysis,
  compiled: CompiledStack,
  given: Given,
  { line, index }: { readonly line: Line; readonly index: number },
  limits: Limits,
): ProcedureStep {
  const uneven = unevenLoad(given, index, limits, banksOf(compiled, given));
  const amount = (watts: number): string =>
    `${formatQuantity(watts, 'W')} (${formatQuantity(watts / given.lineVoltageV, 'A')})`;
  const others = fedLines(given).flatMap((one) => (one.line === line ? [] : [one.line]));
  const where = others.length === 1 ? others.join('') : `each of ${others.join(', ')}`;
  const rest =
    uneven.otherW === 0 ? `nothing on ${others.join(', ')}` : `${amount(uneven.otherW)} on ${where}`;
  const abortPercent = analysis.installation.defaults.abortVoltageTolerance.value * 100;
  return {
    id: `imbalance-${compiled.stack.id}-${line}`,
    section: 'load',
    title: `${compiled.stack.name} ${line}: worst imbalance`,
    instructions: [
      `Put ${amount(uneven.onW)} of resistive load on ${line}, and ${rest}: no load may be more uneven.`,
      `Hold it for fifteen minutes, then read. It is set by ${uneven.setBy}.`,
    ],
    cautions: ['The neutral carries as much as a line: feel for heat near its terminals, never on them.'],
    readings: readingsOf(analysis, compiled, given, line, uneven),
    abortText: `Stop if the voltage of any line leaves ±${abortPercent} %, a unit alarms, or something smells hot.`,
  };
}

/** Each line loaded as much more than the others as the set takes, where its load steps load all lines alike. */
export function imbalanceSteps(analysis: Analysis, compiled: CompiledStack): ProcedureStep[] {
  const { installation } = analysis;
  const given = givenFor(installation, compiled);
  if (!given.known || imbalanceTest(installation, compiled) !== 'by itself') return [];
  const limits = limitsOf(compiled);
  if (isLimits(limits))
    return fedLines(given.value).map((at) => imbalanceStep(analysis, compiled, given.value, at, limits));
  return [
    {
      id: `imbalance-${compiled.stack.id}`,
      section: 'load',
      title: `${compiled.stack.name}: worst imbalance`,
      instructions: [
        'How uneven the set may be loaded is not known: load all lines alike, and no line alone.',
      ],
      cautions: [],
      readings: [
        {
          id: 'neutral-current',
          label: 'Current in the neutral',
          unit: 'A',
          kind: 'number',
          instrument: 'clamp meter',
          missing: [...limits],
        },
      ],
    },
  ];
}
