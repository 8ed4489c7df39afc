import type { CompiledBank } from '../../figures/bank/bank.ts';
import { type BankLimitKey, bankLimits } from '../../figures/bank/bankLimits.ts';
import type { Path } from '../../values/problem.ts';
import type { CheckContext, Measured, Measurement } from '../check.ts';
import type { Found } from '../finding.ts';
import { bankOf } from './bank.ts';
import { efficiencyOf, steadyMoment } from './bankMoment.ts';
import { bankUnknown } from './bankDemand.ts';
import { batteryCurrentStep, modulesStep } from './bankSteps.ts';
import { eachStack, type StackCase } from './eachLine.ts';
import { type Spread, spreadAt } from './sharing.ts';
import { bankSubject } from './subjects.ts';
import { lineInputs, loadCaseWords, overrideNotes } from './workings.ts';

/** Limits that must be known for a verdict; the others bind where they are known, and have checks of their own. */
const NEEDED: ReadonlySet<BankLimitKey> = new Set(['modules', 'inverters', 'breaker']);

interface Limit {
  readonly what: string;
  readonly amperes: number;
}

/** The limits on steady battery current. The smallest binds; a breaker that is not stated is missing, not absent. */
function steadyLimits(
  context: CheckContext,
  one: StackCase,
  bank: CompiledBank,
  evenUnits: number,
  spread: Spread,
): { limits: Limit[]; missing: Path[] } {
  const limits: Limit[] = [];
  const missing: Path[] = [];
  const found = bankLimits({
    site: context.installation.site,
    compiled: one.compiled,
    type: one.type,
    bank,
    evenUnits,
    spread: spread.factor,
    durationS: undefined,
  });
  for (const { key, what, amperes } of found) {
    if (!amperes.known) missing.push(...(NEEDED.has(key) ? amperes.missing : []));
    else if (amperes.value !== 'none') limits.push({ what, amperes: amperes.value });
  }
  return { limits, missing };
}

/** Which voltage the current is worked out at. */
interface At {
  readonly meaning: string;
  readonly voltage: (one: StackCase, bank: CompiledBank) => number;
}

function measured(
  context: CheckContext,
  one: StackCase,
  bank: CompiledBank,
  at: At,
): Measurement<'binding' | 'volts'> {
  const { compiled, board } = one;
  const moment = steadyMoment(one);
  const volts = at.voltage(one, bank);
  const spread = spreadAt(context, one, bank, moment);
  const { limits, missing } = steadyLimits(context, one, bank, moment.evenUnits, spread);
  const binding = limits.reduce((least, limit) => (limit.amperes < least.amperes ? limit : least));
  return {
    subject: bankSubject(compiled),
    value: moment.watts / (efficiencyOf(one, moment) * volts),
    limit: binding.amperes,
    unit: 'A',
    missing: [...board.continuous.missing, ...missing],
    data: { binding: binding.what, volts: `${Math.round(volts * 10) / 10} V` },
    working: () => ({
      steps: [
        batteryCurrentStep(one, {
          watts: moment.watts,
          evenUnits: moment.evenUnits,
          volts,
          when: loadCaseWords(board),
          voltage: at.meaning,
        }),
        modulesStep(one, bank, {
          sumA: bank.continuousDischargeA,
          what: 'continuous discharge',
          spread,
        }),
      ],
      inputs: lineInputs(board, undefined),
      source: 'Steady battery current against modules, inverters and breaker; the smallest limit binds.',
      notes: [
        ...limits.map(
          (limit) =>
            `Limit of ${limit.what}: ${limit.amperes.toFixed(1)} A${limit === binding ? ' (binds)' : ''}.`,
        ),
        ...(spread.isSolved
          ? []
          : [
              'How the modules share is an allowance here: say how they are joined, and it is solved from leads and bars.',
              ...overrideNotes(context.installation, 'moduleShareTolerance'),
            ]),
      ],
    }),
  };
}

/** Battery current I = P / (η · V) at the continuous load and a stated bank voltage, against the binding limit. */
export function dischargeCurrent(check: string, context: CheckContext, at: At): Found<'binding' | 'volts'>[] {
  return eachStack(check, context, 'A', (one): Measured<'binding' | 'volts'>[] => {
    const found = bankOf(one.compiled);
    if (found === undefined) return [];
    return [found.known ? measured(context, one, found.value, at) : bankUnknown(one, found.missing)];
  });
}
