import { compile, config } from 'zod';
import { type Circuit, circuitSchema, MOST_CIRCUITS } from './schema.ts';

/** Below so many circuits, making a parser for them costs more than it saves. */
const WORTH_IT = 100;

let made: typeof circuitSchema | undefined;

/** The same rules as a parser of its own, three to four times as fast; where code may not be made of text (a page), the rules as they are. */
const madeOnce = (): typeof circuitSchema =>
  (made ??= config().jitless === true ? circuitSchema : compile(circuitSchema));

/** The rules of one circuit, for who reads a few of a job that has so many. */
export const circuitRules = (circuitsInAll: number): typeof circuitSchema =>
  made ?? (circuitsInAll < WORTH_IT ? circuitSchema : madeOnce());

/** Circuits that keep every rule of a list of circuits; undefined where one does not: the whole document then says which and why. */
export function fineCircuits(value: unknown): Circuit[] | undefined {
  if (!Array.isArray(value) || value.length > MOST_CIRCUITS) return undefined;
  const rules = circuitRules(value.length);
  const ids = new Set<string>();
  const circuits: Circuit[] = [];
  for (const one of value) {
    const read = rules.safeParse(one);
    if (!read.success || ids.has(read.data.id)) return undefined;
    ids.add(read.data.id);
    circuits.push(read.data);
  }
  return circuits;
}
