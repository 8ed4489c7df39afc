import type { CompiledBank } from '../../figures/bank/bank.ts';
import { type BankLimit, type BankLimitKey, bankLimits } from '../../figures/bank/bankLimits.ts';
import type { Path } from '../../values/problem.ts';
import { type CheckContext, type Measured, type Unmeasured, NO_WORKING } from '../check.ts';
import type { Found } from '../finding.ts';
import { formatNumber } from '../../words/quantity.ts';
import { bankOf } from './bank.ts';
import { efficiencyOf, steadyMoment } from './bankMoment.ts';
import { batteryCurrentStep } from './bankSteps.ts';
import { eachStack, type StackCase } from './eachLine.ts';
import { lowestV } from '../../figures/bank/lowestV.ts';
import { spreadAt } from './sharing.ts';
import { bankSubject } from './subjects.ts';

/** What is drawn from a bank in one situation, with every limit on it. */
export interface BankDemand {
  readonly watts: number;
  readonly volts: number;
  readonly amperes: number;
  /** So many times the limits of the hardest-working inverter is what the bank can be asked for. */
  readonly evenUnits: number;
  /** Undefined for good. */
  readonly durationS: number | undefined;
  readonly label: string;
  readonly limits: readonly BankLimit[];
}

export type Situation = 'nominal' | 'minimum';

/** Battery current in a situation: I = P / (η · U), with every limit on it. */
export function demandIn(
  context: CheckContext,
  one: StackCase,
  bank: CompiledBank,
  situation: Situation,
): BankDemand {
  const { type, compiled } = one;
  const moment = steadyMoment(one);
  const { watts, evenUnits, durationS, label } = moment;
  const volts = situation === 'minimum' ? lowestV(one, bank) : bank.nominalV;
  return {
    watts,
    volts,
    amperes: watts / (efficiencyOf(one, moment) * volts),
    evenUnits,
    durationS,
    label,
    limits: bankLimits({
      site: context.installation.site,
      compiled,
      type,
      bank,
      evenUnits,
      spread: spreadAt(context, one, bank, moment).factor,
      durationS,
    }),
  };
}

/** A current of a bank of which something is not known. */
export const bankUnknown = (one: StackCase, missing: readonly Path[]): Unmeasured => ({
  subject: bankSubject(one.compiled),
  value: undefined,
  limit: undefined,
  unit: 'A',
  missing,
  working: () => NO_WORKING,
});

/** Holds the battery current of a situation against one of its limits; nothing to say where the bank has no such limit. */
export function eachBankLimit(
  check: string,
  context: CheckContext,
  situation: Situation,
  key: BankLimitKey,
  source: string,
): Found<'label' | 'needed' | 'volts'>[] {
  return eachStack(check, context, 'A', (one): Measured<'label' | 'needed' | 'volts'>[] => {
    const found = bankOf(one.compiled);
    if (found === undefined) return [];
    if (!found.known) return [bankUnknown(one, found.missing)];
    const bank = found.value;
    const demand = demandIn(context, one, bank, situation);
    const { missing } = one.board.continuous;
    const limit = demand.limits.find((limited) => limited.key === key)?.amperes;
    if (limit === undefined || (limit.known && limit.value === 'none')) return [];
    return [
      {
        subject: bankSubject(one.compiled),
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
          steps: [batteryCurrentStep(one, { ...demand, when: demand.label, voltage: 'bank voltage' })],
          inputs: [],
          source,
          notes: [],
        }),
      },
    ];
  });
}
