import type { GeneratorType } from '../catalogue/sourceTypes.ts';
import { field, type Known, known, mapKnown } from '../values/known.ts';
import type { Generator } from '../design/schema.ts';
import type { Supply } from './supply.ts';

/**
 * The lines of the building that a set reaches, as their numbers: all of them, or for a set with fewer lines than the building the
 * one that is chosen. A two-line set on three lines reaches the chosen one and the next.
 */
export function generatorLines(
  generator: Generator,
  type: GeneratorType,
  supply: Supply,
): Known<readonly number[]> {
  const all = supply.lines.map((_, index) => index);
  if (type.lines >= all.length) return known(all);
  return mapKnown(field(generator.line, 'generators', generator.id, 'line'), (line) => {
    const first = supply.lines.indexOf(line);
    return Array.from({ length: type.lines }, (_, step) => (first + step) % all.length);
  });
}
