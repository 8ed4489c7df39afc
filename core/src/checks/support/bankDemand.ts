import type { CompiledBank } from '../../compile/bank.ts';
import { type BankLimit, type BankLimitKey, bankLimits } from '../../compile/bankLimits.ts';
import type { CheckContext, Measurement } from '../check.ts';
import { NO_WORKING } from '../check.ts';
import type { Finding } from '../finding.ts';
import { formatNumber } from '../../words/quantity.ts';
import { bankOf } from './bank.ts';
import { powerWords, startMoment, steadyMoment } from './bankMoment.ts';
import { eachStack, type StackCase } from './eachLine.ts';
import { spreadAt } from './sharing.ts';
import { bankSubject } from './subjects.ts';
import { symbol } from './workings.ts';

/** What is drawn from a bank in one situation, with every limit on it. */
export interface BankDemand {
  readonly watts: number;
  readonly volts: number;
  readonly amperes: number;
  /** Undefined for good. */
  readonly durationS: number | undefined;
  readonly label: string;
  readonly limits: readonly BankLimit[];
}

export type Situation = 'nominal' | 'minimum' | 'surge';

/** Lowest voltage at which a set still runs: constant power draws the most current there. */
export const lowestV = ({ type }: StackCase, bank: CompiledBank): number =>
  Math.max(bank.minV, type.batteryWindowV.min, type.lowVoltageTripV);

/** Battery current in a situation: I = P / (η · U), with every limit on it; undefined where nothing starts. */
export function demandIn(
  context: CheckContext,
  one: StackCase,
  bank: CompiledBank,
  situation: Situation,
): BankDemand | undefined {
  const { type, compiled } = one;
  const moment = situation === 'surge' ? startMoment(one) : steadyMoment(one);
  if (moment === undefined) return undefined;
  const { watts, evenUnits, durationS, label } = moment;
  const volts = situation === 'minimum' ? lowestV(one, bank) : bank.nominalV;
  return {
    watts,
    volts,
    amperes: watts / (type.efficiency * volts),
    durationS,
    label,
    limits: bankLimits({
      site: context.installation.design.site,
      compiled,
      type,
      bank,
      evenUnits,
      spread: spreadAt(context, one, bank, moment).factor,
      durationS,
    }),
  };
}

/** Holds the battery current of a situation against one of its limits; nothing to say where the bank has no such limit. */
export function eachBankLimit(
  check: string,
  context: CheckContext,
  situation: Situation,
  key: BankLimitKey,
  source: string,
): Finding[] {
  return eachStack(check, context, 'A', (one): (Measurement | undefined)[] => {
    const found = bankOf(one.compiled);
    if (found === undefined || one.capability.stopped) return [];
    const subject = bankSubject(one.compiled);
    const blank = { subject, value: undefined, limit: undefined, unit: 'A', working: () => NO_WORKING };
    if (!found.known) return [{ ...blank, missing: found.missing }];
    const bank = found.value;
    const demand = demandIn(context, one, bank, situation);
    const missing = situation === 'surge' ? one.board.starts.missing : one.board.continuous.missing;
    if (demand === undefined) return missing.length > 0 ? [{ ...blank, missing }] : [];
    const limit = demand.limits.find((limited) => limited.key === key)?.amperes;
    if (limit === undefined || (limit.known && limit.value === 'none')) return [];
    return [
      {
        subject,
        value: demand.amperes,
        limit: limit.known && limit.value !== 'none' ? limit.value : undefined,
        unit: 'A',
        missing: [...missing, ...(limit.known ? [] : limit.missing)],
        data: {
          label: demand.label,
          needed: demand.durationS === undefined ? 'for good' : `for ${formatNumber(demand.durationS)} s`,
          volts: `${formatNumber(demand.volts)} V`,
        },
        working: () => ({
          steps: [
            {
              symbol: 'I',
              meaning: 'battery current',
              formula: 'P / (η · U)',
              symbols: [
                symbol('P', `${powerWords(one)}, ${demand.label}`, demand.watts, 'W'),
                symbol('η', 'inverter efficiency', one.type.efficiency, '', [
                  'stacks',
                  one.compiled.stack.id,
                  'inverterTypeId',
                ]),
                symbol('U', 'bank voltage', demand.volts, 'V'),
              ],
              value: demand.amperes,
              unit: 'A',
            },
          ],
          inputs: [],
          source,
          notes: [],
        }),
      },
    ];
  });
}
