import { bankOfSet } from '../figures/bank/ofSet.ts';
import type { Analysis } from '../checks/analyse.ts';
import type { InverterType } from '../catalogue/inverterType.ts';
import type { CompiledBank } from '../figures/bank/bank.ts';
import { type Capability, capabilityWithout } from '../figures/capability/capability.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import { isOwnBank } from '../installation/ownBank.ts';
import { all, type Known, mapKnown } from '../values/known.ts';
import type { Stack } from '../installation/facts.ts';
import type { Line } from '../values/quantities.ts';
import { formatQuantity } from '../words/quantity.ts';
import { realLoad } from './realLoad.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import { aroundSpec, islandFrequencySpec, missingWords, voltageSpec } from './specs.ts';

const SHARES = [0.25, 0.5, 0.75, 1] as const;

/** What the test loads of a set follow from. */
export interface Given {
  readonly type: InverterType;
  readonly capability: Capability;
  readonly bank: CompiledBank | 'none';
  readonly lines: readonly Line[];
  readonly lineVoltageV: number;
  readonly moduleShare: number;
  readonly currentSharing: number;
}

/** A set of lines that are loaded together through one output, and the watts on each at full test load. */
interface TestLoad {
  /** The output, where the set has several that are loaded. */
  readonly output: { readonly id: string; readonly name: string } | undefined;
  /** Nobody has stated what the output gives, so the test load is not held against it. */
  readonly limitUnknown: boolean;
  readonly lines: readonly Line[];
  readonly wattsPerLine: number;
  readonly setBy: string;
  /** Banks that give it together. */
  readonly banks: number;
}

/** What the bank gives for long at its lowest voltage: P = η · U_min · I / (1 + ε_s); unlimited without a bank. */
export function batteryW({ bank, type, moduleShare }: Given): number {
  if (bank === 'none') return Infinity;
  const spread = bank.parallelCount > 1 ? 1 + moduleShare : 1;
  return (type.efficiency * bank.minV * bank.continuousDischargeA) / spread;
}

/** The lines that inverters of a set stand on. */
export const fedLines = ({ lines, capability }: Given): { readonly line: Line; readonly index: number }[] =>
  lines
    .map((line, index) => ({ line, index }))
    .filter(({ index }) => (capability.unitsOnLine[index] ?? 0) > 0);

/** What a line carries for long, W: of a resistive load its VA as well. */
export const carriesW = ({ capability }: Given, index: number): number =>
  Math.min(capability.perLineW[index] ?? 0, capability.perLineVa[index] ?? 0);

/**
 * Whether a set takes one loaded line beside idle ones. Loading one of m lines alone is an imbalance of (max − min) / mean = m: not for
 * a type with a lower limit, or none stated, nor for a set that leans on an autotransformer.
 */
export const takesOneLine = (given: Given, { arrangement }: Stack): boolean =>
  arrangement !== 'split-phase-autotransformer' && (given.type.imbalanceLimit ?? 0) >= fedLines(given).length;

/** One line at a time, where the set takes that; else all of them alike. */
function setLoads(given: Given, stack: Stack): TestLoad[] {
  const isOwn = isOwnBank(stack);
  const { capability } = given;
  const fed = fedLines(given);
  const limited = (
    inverterW: number,
    banks: number,
    sharedBy: number,
  ): Omit<TestLoad, 'lines' | 'output' | 'limitUnknown'> => {
    const battery = (banks * batteryW(given)) / sharedBy;
    return battery < inverterW
      ? { wattsPerLine: battery, setBy: 'the battery bank', banks }
      : { wattsPerLine: inverterW, setBy: 'the inverters', banks };
  };
  if (fed.length <= 1 || takesOneLine(given, stack)) {
    return fed.map(({ line, index }) => ({
      output: undefined,
      limitUnknown: false,
      lines: [line],
      ...limited(carriesW(given, index), isOwn ? (capability.unitsOnLine[index] ?? 1) : 1, 1),
    }));
  }
  const least = Math.min(
    ...fed.map(({ index }) => carriesW(given, index)),
    Math.min(capability.totalW, capability.totalVa) / fed.length,
  );
  const onWeakest = Math.min(...fed.map(({ index }) => capability.unitsOnLine[index] ?? 1));
  const banks = isOwn ? Math.min(capability.unitCount, onWeakest * fed.length) : 1;
  return [
    {
      output: undefined,
      limitUnknown: false,
      lines: fed.map(({ line }) => line),
      ...limited(least, banks, fed.length),
    },
  ];
}

/** What an output gives on a line, W: V · n · I / (1 + ε); everything where its limit is not stated. */
export function outputW(given: Given, limitA: number | undefined, line: Line): number {
  const units = given.capability.unitsOnLine[given.lines.indexOf(line)] ?? 0;
  const sharing = units > 1 ? given.currentSharing : 0;
  return limitA === undefined ? Infinity : (given.lineVoltageV * units * limitA) / (1 + sharing);
}

/** The test loads of a set, none above what the output gives that it is put on; each output of several is loaded by itself. */
function testLoads(given: Given, stack: Stack): TestLoad[] {
  const { outputs, backupPortA } = given.type;
  const through =
    outputs === undefined
      ? [{ output: undefined, limitA: backupPortA, words: 'the backup output' }]
      : outputs.map(({ id, name, limitA }) => ({ output: { id, name }, limitA, words: `the ${name}` }));
  return setLoads(given, stack).flatMap((load) =>
    through.map(({ output, limitA, words }): TestLoad => {
      const most = Math.min(...load.lines.map((line) => outputW(given, limitA, line)));
      return most < load.wattsPerLine
        ? { ...load, output, wattsPerLine: most, setBy: words }
        : { ...load, output, limitUnknown: limitA === undefined };
    }),
  );
}

/** What the test loads of a set follow from, where all of it is known. */
export const givenFor = (
  { supply, lineVoltageV, defaults }: Installation,
  compiled: CompiledStack,
): Known<Given> =>
  mapKnown(
    all({
      supply,
      type: compiled.type,
      capability: capabilityWithout(compiled),
      bank: bankOfSet(compiled),
      lineVoltageV,
    }),
    (known) => ({
      ...known,
      lines: known.supply.lines,
      moduleShare: defaults.moduleShareTolerance.value,
      currentSharing: defaults.currentSharingTolerance.value,
    }),
  );

/** Load steps at a quarter, a half, three quarters and the whole of each test load. */
export function loadSteps(analysis: Analysis, compiled: CompiledStack): ProcedureStep[] {
  const given = givenFor(analysis.installation, compiled);
  if (!given.known) return [unknownLoadStep(compiled, missingWords(analysis.installation, given.missing))];
  return testLoads(given.value, compiled.stack).flatMap((load) =>
    SHARES.map((share) => loadStep(analysis, compiled, given.value, load, share)),
  );
}

/** Single-phase units that share this line; a unit that makes several lines is not split here. */
function unitsOn(compiled: CompiledStack, line: Line, type: InverterType): string[] {
  if (type.nativeLines !== 1) return [];
  const units = compiled.stack.units.filter((unit) => unit.line === undefined || unit.line === line);
  return units.length > 1 ? units.map((unit) => unit.id) : [];
}

function loadReadings(
  { installation }: Analysis,
  compiled: CompiledStack,
  given: Given,
  load: TestLoad,
  watts: number,
): ReadingSpec[] {
  const { defaults } = installation;
  const currentA = watts / given.lineVoltageV;
  const perLine = load.lines.flatMap((line) => {
    const units = unitsOn(compiled, line, given.type);
    return [
      aroundSpec(
        { id: `current-${line}`, label: `Load current ${line}`, unit: 'A', instrument: 'clamp meter' },
        currentA,
        defaults.testLoadTolerance.value,
      ),
      voltageSpec(installation, line),
      ...units.map((unit) =>
        aroundSpec(
          {
            id: `unit-${unit}`,
            label: `Output of unit ${compiled.stack.units.findIndex((one) => one.id === unit) + 1}`,
            unit: 'A',
            instrument: 'clamp meter',
          },
          currentA / units.length,
          defaults.unitShareTolerance.value,
        ),
      ),
    ];
  });
  if (given.bank === 'none') return [...perLine, islandFrequencySpec(installation, compiled)];
  const batteryA = (watts * load.lines.length) / (given.type.efficiency * given.bank.nominalV * load.banks);
  return [
    ...perLine,
    islandFrequencySpec(installation, compiled),
    aroundSpec(
      {
        id: 'battery-current',
        label: load.banks > 1 ? 'Battery current of each bank' : 'Battery current',
        unit: 'A',
        instrument: 'DC clamp meter',
      },
      batteryA,
      defaults.batteryCurrentTolerance.value,
    ),
  ];
}

function loadStep(
  analysis: Analysis,
  compiled: CompiledStack,
  given: Given,
  load: TestLoad,
  share: number,
): ProcedureStep {
  const percent = share * 100;
  const watts = load.wattsPerLine * share;
  const on = load.lines.join(', ');
  const where = load.output === undefined ? on : `${on}, ${load.output.name}`;
  const key = load.output === undefined ? '' : `-${load.output.id}`;
  const amount = `${formatQuantity(watts, 'W')} of resistive load (${formatQuantity(watts / given.lineVoltageV, 'A')})`;
  const abortPercent = analysis.installation.defaults.abortVoltageTolerance.value * 100;
  return {
    id: `load-${compiled.stack.id}-${load.lines.join('')}${key}-${percent}`,
    section: 'load',
    title: `${compiled.stack.name} ${where}: ${percent} % load`,
    instructions: [
      load.lines.length === 1
        ? `Put ${amount} on ${where}, and nothing on ${load.output === undefined ? 'the other lines' : 'other lines and outputs'}.`
        : `Put ${amount} on each line of ${where}, alike: the set must not be loaded on one line alone.`,
      ...realLoad(analysis.installation, compiled, load.lines, watts),
      `Hold it for five minutes, then read. The whole test load is set by ${load.setBy}.`,
    ],
    cautions: [
      'Load banks run hot: keep them clear and watched. Feel for heat near terminals, never on them.',
      ...(load.limitUnknown
        ? [
            `What ${load.output?.name ?? 'the backup output'} gives is not stated: read it on the plate first, and load it no further.`,
          ]
        : []),
    ],
    readings: loadReadings(analysis, compiled, given, load, watts),
    abortText: `Stop if the voltage leaves ±${abortPercent} %, a unit alarms, or a battery module warms or disconnects.`,
  };
}

function unknownLoadStep(compiled: CompiledStack, missing: string[]): ProcedureStep {
  return {
    id: `load-${compiled.stack.id}-unknown`,
    section: 'load',
    title: `${compiled.stack.name}: load steps`,
    instructions: [
      'The load steps cannot be worked out yet. Fill in what is missing, then make the procedure anew.',
    ],
    cautions: [],
    readings: [
      {
        id: 'load-current',
        label: 'Load current',
        unit: 'A',
        kind: 'number',
        instrument: 'clamp meter',
        missing,
      },
    ],
  };
}
