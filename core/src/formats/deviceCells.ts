import type { Circuit } from '../design/schema.ts';
import type { ReadCell } from './readCell.ts';

/** "2", "2P", "2-pole" as a number of poles. */
export function readPoles(text: string): ReadCell<1 | 2 | 3> {
  const cell = text.trim();
  if (cell === '') return { ok: true, value: undefined };
  const [, digit] = /^([123])[\s-]*(?:p|poles?)?$/iu.exec(cell) ?? [];
  switch (digit) {
    case '1':
      return { ok: true, value: 1 };
    case '2':
      return { ok: true, value: 2 };
    case '3':
      return { ok: true, value: 3 };
    default:
      return { ok: false, reason: `"${cell.slice(0, 30)}" is no number of poles from 1 to 3` };
  }
}

/** "50", "50 A", "C16", "16 A C" as the device of a circuit. */
export function readDevice(text: string): ReadCell<NonNullable<Circuit['device']>> {
  const cell = text.trim();
  if (cell === '') return { ok: true, value: undefined };
  const [, ahead, amperes, behind] = /^([BCD])?\s*(\d{1,3}(?:[.,]\d)?)\s*A?\s*([BCD])?$/iu.exec(cell) ?? [];
  const ratedA = Number((amperes ?? '').replace(',', '.'));
  const curve = (['B', 'C', 'D'] as const).find((one) => one === (ahead ?? behind)?.toUpperCase());
  return ratedA > 0
    ? { ok: true, value: { ratedA, ...(curve === undefined ? {} : { curve }) } }
    : { ok: false, reason: `"${cell.slice(0, 30)}" is no rating of a device` };
}

/** How near a voltage has to be to one of the supply to mean it: 110 and 115 V are 120 V, 220 is 230. */
const NEAR = 0.1;

/** On how many lines a load of a voltage hangs: between both of two, or on one; between three lines it may be two or three. */
export function countByVoltage(
  text: string,
  lineVoltageV: number | undefined,
  lineCount: number,
): ReadCell<1 | 2> {
  const cell = text.trim();
  if (cell === '') return { ok: true, value: undefined };
  const [, figure] = /^(\d{2,3}(?:\.\d)?)\s*(?:v|volts?|vac)?$/iu.exec(cell) ?? [];
  if (figure === undefined) return { ok: false, reason: `"${cell.slice(0, 30)}" is no voltage` };
  const isNear = (volts: number): boolean => Math.abs(Number(figure) / volts - 1) <= NEAR;
  if (lineVoltageV === undefined) return { ok: true, value: undefined };
  if (isNear(lineVoltageV)) return { ok: true, value: 1 };
  return { ok: true, value: lineCount === 2 && isNear(2 * lineVoltageV) ? 2 : undefined };
}
