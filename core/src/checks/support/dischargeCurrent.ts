import type { CompiledBank } from '../../compile/bank.ts';
import { type BankLimitKey, bankLimits } from '../../compile/bankLimits.ts';
import type { Path } from '../../design/problem.ts';
import type { CheckContext, Measurement } from '../check.ts';
import type { Finding } from '../finding.ts';
import { bankOf } from './bank.ts';
import { powerWords, steadyMoment } from './bankMoment.ts';
import { eachStack, type StackCase } from './eachLine.ts';
import { type Spread, spreadAt, spreadWords } from './sharing.ts';
import { bankSubject } from './subjects.ts';
import { lineInputs, loadCaseWords, overrideNotes, symbol } from './workings.ts';

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
    site: context.installation.design.site,
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

/** Battery current I = P / (η · V) at the expected peak and a stated bank voltage, against the binding limit. */
export function dischargeCurrent(
  check: string,
  context: CheckContext,
  at: { readonly meaning: string; readonly voltage: (one: StackCase, bank: CompiledBank) => number },
): Finding[] {
  return eachStack(check, context, 'A', (one): (Measurement | undefined)[] => {
    const { compiled, type, board, capability } = one;
    const found = bankOf(compiled);
    if (found === undefined || capability.stopped) return [];
    const subject = bankSubject(compiled);
    const noWorking = (): ReturnType<Measurement['working']> => ({
      steps: [],
      inputs: [],
      source: '',
      notes: [],
    });
    if (!found.known)
      return [
        {
          subject,
          value: undefined,
          limit: undefined,
          unit: 'A',
          missing: found.missing,
          working: noWorking,
        },
      ];
    const bank = found.value;
    const moment = steadyMoment(one);
    const { watts, evenUnits } = moment;
    const volts = at.voltage(one, bank);
    const value = watts / (type.efficiency * volts);
    const spread = spreadAt(context, one, bank, moment);
    const { limits, missing } = steadyLimits(context, one, bank, evenUnits, spread);
    const binding = limits.reduce((least, limit) => (limit.amperes < least.amperes ? limit : least));
    return [
      {
        subject,
        value,
        limit: binding.amperes,
        unit: 'A',
        missing: [...board.continuous.missing, ...missing],
        data: { binding: binding.what, volts: `${Math.round(volts * 10) / 10} V` },
        working: () => ({
          steps: [
            {
              symbol: 'I',
              meaning: `battery current at ${at.meaning}`,
              formula: 'P / (η · U)',
              symbols: [
                symbol('P', `${powerWords(one)}, ${loadCaseWords(board)}`, watts, 'W'),
                symbol('η', 'inverter efficiency', type.efficiency, '', [
                  'stacks',
                  compiled.stack.id,
                  'inverterTypeId',
                ]),
                symbol('U', at.meaning, volts, 'V', ['stacks', compiled.stack.id, 'bank', 'batteryTypeId']),
              ],
              value,
              unit: 'A',
            },
            {
              symbol: 'I_modules',
              meaning: 'what the modules give together',
              formula: 'n · I_module / k_s',
              symbols: [
                symbol('n', 'modules in parallel', bank.parallelCount, '', [
                  'stacks',
                  compiled.stack.id,
                  'bank',
                  'modules',
                ]),
                symbol('I_module', 'continuous discharge of one', bank.type.continuousDischargeA, 'A'),
                symbol('k_s', spreadWords(spread), spread.factor, ''),
              ],
              value: bank.continuousDischargeA / spread.factor,
              unit: 'A',
            },
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
      },
    ];
  });
}
