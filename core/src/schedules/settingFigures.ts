import { bankOfSet } from '../figures/bank/ofSet.ts';
import type { CompiledStack } from '../installation/installation.ts';
import type { Cell } from './table.ts';

/** What an inverter has to know of its bank. */
export interface BankSettings {
  readonly capacityAh: number | undefined;
  readonly isClosed: boolean;
}

export function figuresOfReserve(compiled: CompiledStack): BankSettings {
  const bank = bankOfSet(compiled);
  const stated = compiled.stack.bank;
  return {
    capacityAh: bank.known && bank.value !== 'none' ? bank.value.capacityAh : undefined,
    isClosed: typeof stated === 'object' && stated.comms?.loop === 'closed',
  };
}

export const percentOf = (share: number | undefined): Cell =>
  share === undefined ? null : `${Math.round(share * 1000) / 10} %`;
