import type { CompiledBank } from '../../figures/bank/bank.ts';
import { counted } from '../../words/quantity.ts';
import type { WorkingStep } from '../finding.ts';
import { efficiencyOf, powerWords } from './bankMoment.ts';
import type { StackCase } from './eachLine.ts';
import type { StartCurrent } from './startCurrent.ts';
import { type Spread, spreadWords } from './sharing.ts';
import { symbol } from './workings.ts';

const bankPath = ({ compiled }: StackCase, field: string): string[] => [
  'stacks',
  compiled.stack.id,
  'bank',
  field,
];

/** I = P / (η · U): what a load draws from the battery. */
export function batteryCurrentStep(
  one: StackCase,
  load: {
    readonly watts: number;
    readonly evenUnits: number;
    readonly volts: number;
    /** When it is drawn: "continuous load". */
    readonly when: string;
    /** Which voltage that is. */
    readonly voltage: string;
  },
): WorkingStep {
  const { compiled } = one;
  const efficiency = efficiencyOf(one, load);
  return {
    symbol: 'I',
    meaning: 'battery current',
    formula: 'P / (η · U)',
    symbols: [
      symbol('P', `${powerWords(one)}, ${load.when}`, load.watts, 'W'),
      symbol('η', 'inverter efficiency at what it gives', efficiency, '', [
        'stacks',
        compiled.stack.id,
        'inverterTypeId',
      ]),
      symbol('U', load.voltage, load.volts, 'V', bankPath(one, 'batteryTypeId')),
    ],
    value: load.watts / (efficiency * load.volts),
    unit: 'A',
  };
}

/** I_modules = ΣI / k_s: what the modules give together when the hardest-working one is at its limit. */
export function modulesStep(
  one: StackCase,
  bank: CompiledBank,
  given: { readonly sumA: number; readonly what: string; readonly spread: Spread },
): WorkingStep {
  const { sumA, what, spread } = given;
  const inParallel = bank.parallelCount > 1 ? ` of ${counted(bank.parallelCount, 'module')} together` : '';
  return {
    symbol: 'I_modules',
    meaning: 'what the modules give',
    formula: 'I_sum / k_s',
    symbols: [
      symbol('I_sum', `${what}${inParallel}`, sumA, 'A', bankPath(one, 'modules')),
      symbol('k_s', spreadWords(spread), spread.factor, ''),
    ],
    value: sumA / spread.factor,
    unit: 'A',
  };
}

/** What one start draws: I = P_dc / U at the voltage that the solve found. */
export function startCurrentStep(start: StartCurrent): WorkingStep {
  return {
    symbol: 'I',
    meaning: `battery current while ${start.label} starts`,
    formula: 'P_dc / U',
    symbols: [
      symbol('P_dc', 'direct power, all inverters on the bank', start.watts, 'W'),
      symbol('U', 'voltage over the whole bank that was solved', start.volts, 'V'),
    ],
    value: start.watts / start.volts,
    unit: 'A',
  };
}
