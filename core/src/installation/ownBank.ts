import type { Stack } from '../design/schema.ts';

/** Whether each inverter has a bank of its own, like the one described. */
export const isOwnBank = ({ bank, units }: Stack): boolean =>
  typeof bank === 'object' && bank.serves === 'one-unit' && units.length > 1;

/** How many banks like the one described there are. */
export const bankCount = (stack: Stack): number => (isOwnBank(stack) ? stack.units.length : 1);
