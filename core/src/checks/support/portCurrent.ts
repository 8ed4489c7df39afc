import { add, type Complex, complex, magnitude, ZERO } from '../../network/complex.ts';
import type { CheckContext, Measurement } from '../check.ts';
import { counted } from '../../words/quantity.ts';
import { chargeKeyOf, type ChargeKey, lineChargeW } from '../../figures/capability/acCharge.ts';
import type { WorkingStep } from '../finding.ts';
import type { LineCase } from './eachLine.ts';
import { lineSubject } from './subjects.ts';
import { lineInputs, loadCaseWords, symbol } from './workings.ts';

/**
 * Current of one line through a port that also feeds the backed-up board: I = |S_load + P_charge| / V, against
 * n ports with their sharing tolerance: I_max = n · I_port / (1 + ε).
 */
export function portCurrent(
  context: CheckContext,
  one: LineCase,
  port: {
    readonly limitA: number | undefined;
    readonly key: string;
    readonly meaning: string;
    readonly charging: boolean;
    /** The type has no such port. */
    readonly isAbsent?: boolean;
  },
): Measurement<'units' | 'verb'> {
  const { compiled, line, index, board, capability, type } = one;
  const subject = lineSubject(compiled, line);
  const voltage = context.installation.lineVoltageV;
  const key = chargeKeyOf(context.mode.kind);
  const charge = port.charging
    ? lineChargeW(compiled, type, capability, index, key)
    : { known: true as const, value: 0 };
  const missing = [
    ...board.continuous.missing,
    ...(voltage.known ? [] : voltage.missing),
    ...(charge.known ? [] : charge.missing),
    ...(port.limitA === undefined ? [['types', type.id, port.key]] : []),
  ];
  const chargeW = charge.known ? charge.value : 0;
  const power = add(board.continuous.knownPart[index] ?? ZERO, complex(chargeW, 0));
  const n = capability.unitsOnLine[index] ?? 0;
  const sharing = n > 1 ? context.installation.defaults.currentSharingTolerance.value : 0;
  const value = voltage.known ? magnitude(power) / voltage.value : undefined;
  const limit = port.limitA === undefined ? undefined : (n * port.limitA) / (1 + sharing);
  return {
    subject,
    value,
    limit,
    unit: 'A',
    missing,
    data:
      port.isAbsent === true
        ? { units: 'its inverters have no such port and', verb: 'take' }
        : { units: counted(n, 'unit'), verb: n === 1 ? 'takes' : 'take' },
    working: () => ({
      steps: [
        ...(voltage.known && charge.known
          ? [currentStep([compiled.stack.id, key], loadCaseWords(board), power, chargeW, voltage.value)]
          : []),
        ...(limit === undefined || port.limitA === undefined
          ? []
          : [limitStep(compiled.stack.id, port.meaning, n, port.limitA, sharing, limit)]),
      ],
      inputs: lineInputs(board, line),
      source: 'The backed-up board draws its whole current through the unit, with charging on top.',
      notes: [],
    }),
  };
}

function currentStep(
  [stackId, key]: readonly [string, ChargeKey],
  loadCase: string,
  power: Complex,
  chargeW: number,
  voltageV: number,
): WorkingStep {
  return {
    symbol: 'I',
    meaning: 'current of the line through the port',
    formula: '√((P + P_ch) · (P + P_ch) + Q · Q) / V',
    symbols: [
      symbol('P_ch', 'charging from this side', chargeW, 'W', ['stacks', stackId, key]),
      symbol('P', `real power of the line, ${loadCase}`, power.re - chargeW, 'W'),
      symbol('Q', `reactive power of the line, ${loadCase}`, power.im, 'var'),
      symbol('V', 'line to neutral', voltageV, 'V', ['site', 'lineVoltageV']),
    ],
    value: magnitude(power) / voltageV,
    unit: 'A',
  };
}

function limitStep(
  stackId: string,
  meaning: string,
  units: number,
  portA: number,
  sharing: number,
  limitA: number,
): WorkingStep {
  return {
    symbol: 'I_max',
    meaning: `${meaning} of the units on this line`,
    formula: 'n · I_port / (1 + ε)',
    symbols: [
      symbol('n', 'units on the line', units, '', ['stacks', stackId, 'units']),
      symbol('I_port', `${meaning} of one unit`, portA, 'A', ['stacks', stackId, 'inverterTypeId']),
      symbol('ε', 'current-sharing tolerance, 0 for one unit', sharing, ''),
    ],
    value: limitA,
    unit: 'A',
  };
}
