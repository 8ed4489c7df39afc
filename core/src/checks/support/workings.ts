import { hypot } from '../../values/elementary.ts';
import { type Capability, linesMadeBy } from '../../figures/capability/capability.ts';
import { type Board, LOAD_CASE_WORDS } from '../../figures/loads/board.ts';
import type { CompiledStack, Installation } from '../../installation/installation.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import type { Complex } from '../../network/complex.ts';
import type { Line } from '../../values/quantities.ts';
import { formatQuantity } from '../../words/quantity.ts';
import type { WorkingInput, WorkingStep, WorkingSymbol } from '../finding.ts';

export function symbol(
  name: string,
  meaning: string,
  value: number,
  unit: string,
  path?: readonly (string | number)[],
): WorkingSymbol {
  return path === undefined
    ? { symbol: name, meaning, value, unit }
    : { symbol: name, meaning, value, unit, path };
}

/** S = √(P² + Q²) of a line's summed load. */
export function apparentPowerStep(name: string, meaning: string, power: Complex): WorkingStep {
  return {
    symbol: name,
    meaning,
    formula: '√(P · P + Q · Q)',
    symbols: [
      symbol('P', 'sum of real power on the line', power.re, 'W'),
      symbol('Q', 'sum of reactive power on the line', power.im, 'var'),
    ],
    value: hypot(power.re, power.im),
    unit: 'VA',
  };
}

/** What makes no AC in island carries nothing, whatever is printed on it. */
const NO_OUTPUT: WorkingStep = {
  symbol: 'S_line',
  meaning: 'usable capacity of the line: it makes no AC in island',
  formula: '0',
  symbols: [],
  value: 0,
  unit: 'VA',
};

/** S_line = n · S_unit / m · k / (1 + ε): what one line of a set can carry. */
export function lineCapabilityStep(
  installation: Installation,
  compiled: CompiledStack,
  type: InverterType,
  capability: Capability,
  line: number,
  rated: 'VA' | 'W',
): WorkingStep {
  if (!capability.carries) return NO_OUTPUT;
  const { stack } = compiled;
  const n = capability.unitsOnLine[line] ?? 0;
  const made = linesMadeBy(stack.arrangement ?? 'one-unit', type, capability.unitsOnLine.length);
  const value = (rated === 'VA' ? capability.perLineVa : capability.perLineW)[line] ?? 0;
  const shares = stack.arrangement === 'split-phase-autotransformer';
  const symbols = [
    symbol('n', 'units on the line', n, '', ['stacks', stack.id, 'units']),
    symbol('S_unit', `rating of one ${type.name}`, rated === 'VA' ? type.ratedVa : type.ratedW, rated, [
      'stacks',
      stack.id,
      'inverterTypeId',
    ]),
    symbol('m', 'lines one unit makes', made, ''),
    symbol('k', `derating at ${String(installation.site.equipmentHighestC)} °C`, capability.derating, '', [
      'site',
      'equipmentHighestC',
    ]),
    symbol(
      'ε',
      'current-sharing tolerance, 0 for one unit',
      n > 1 ? installation.defaults.currentSharingTolerance.value : 0,
      '',
    ),
  ];
  const base = 'n · S_unit / m · k / (1 + ε)';
  if (!shares || n === 0) {
    return {
      symbol: 'S_line',
      meaning: 'usable capacity of the line',
      formula: base,
      symbols,
      value,
      unit: rated,
    };
  }
  const neutralA =
    compiled.autotransformer.known && compiled.autotransformer.value !== 'none'
      ? compiled.autotransformer.value.neutralA
      : 0;
  return {
    symbol: 'S_line',
    meaning:
      'usable capacity of the line: half the set, and half of what the neutral can shift, but not more than the set',
    formula: `min(${base} + V · I_n / 2, 2 · ${base})`,
    symbols: [
      ...symbols,
      symbol(
        'V',
        'line to neutral',
        installation.lineVoltageV.known ? installation.lineVoltageV.value : 0,
        'V',
        ['site', 'lineVoltageV'],
      ),
      symbol('I_n', 'neutral rating of the autotransformer', neutralA, 'A', [
        'stacks',
        stack.id,
        'autotransformerTypeId',
      ]),
    ],
    value,
    unit: rated,
  };
}

/** How many typed figures a working lists before it says how many more there are. */
const LISTED_INPUTS = 12;

/** The items that load a line, largest first, as links to what was typed. */
export function lineInputs(board: Board, line: Line | undefined): WorkingInput[] {
  return board.circuits
    .filter((circuit) => line === undefined || circuit.lines === undefined || circuit.lines.includes(line))
    .flatMap((circuit) =>
      circuit.items.map((item) => ({
        label: `${item.quantity === undefined || item.quantity === 1 ? '' : `${item.quantity} × `}${item.name} (${circuit.name})`,
        path: ['circuits', circuit.id, 'items', item.id, 'runningW'],
        value: item.runningW,
        unit: 'W',
        weight: (item.runningW ?? Infinity) * (item.quantity ?? 1) * (item.demandFactor ?? 1),
      })),
    )
    .sort((a, b) => b.weight - a.weight)
    .slice(0, LISTED_INPUTS)
    .map(({ weight: _weight, ...input }) => input);
}

/** Says so where a default was overridden, with its reason. */
export function overrideNotes(
  installation: Installation,
  ...keys: (keyof Installation['defaults'])[]
): string[] {
  return keys.flatMap((key) => {
    const found = installation.defaults[key];
    return found.reason === undefined
      ? []
      : [`${key} is set to ${found.value} for this job: ${found.reason}`];
  });
}

/** Which load case a continuous limit was held against. */
export const loadCaseWords = (board: Board): string => LOAD_CASE_WORDS[board.continuous.loadCase];

/** Says what the estimate is, where a measurement stands in its place: both stay visible. */
export function loadCaseNotes(board: Board, line: number): string[] {
  const power = board.expected.knownPart[line];
  if (board.continuous.loadCase === 'expected peak' || power === undefined) return [];
  return [
    `Held against the ${loadCaseWords(board)}. The estimate (expected peak) is ${formatQuantity(hypot(power.re, power.im), 'VA')}.`,
  ];
}
