import { type GeneratorRating, generatorRating } from '../../figures/generator/rating.ts';
import { generatorBoard } from '../../figures/loads/boards.ts';
import type { GeneratorType } from '../../catalogue/sourceTypes.ts';
import type { Board } from '../../figures/loads/board.ts';
import { generatorLines } from '../../installation/generatorLines.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { Supply } from '../../installation/supply.ts';
import { all, type Known, known } from '../../values/known.ts';
import type { Generator } from '../../installation/facts.ts';
import { type CheckContext, unknownFinding } from '../check.ts';
import type { Found, Subject } from '../finding.ts';

/** A generator of this mode with what it carries. */
export interface GeneratorCase {
  readonly subject: Subject;
  readonly generator: Generator;
  readonly type: GeneratorType;
  /** What is left of it at this altitude and heat. */
  readonly rating: GeneratorRating;
  readonly board: Board;
  readonly compiled: CompiledStack;
  readonly supply: Supply;
  /** Numbers of the lines it reaches. */
  readonly reached: readonly number[];
}

/** The engine of a set: what gives its watts, whatever the lines. */
export const engineSubject = ({ generator, subject }: GeneratorCase): Subject => ({
  ...subject,
  id: `${generator.id}/engine`,
  label: `Engine of ${generator.name}`,
  about: [{ kind: 'generator', id: generator.id }],
});

/** Runs a measurement for each generator that is connected the way this mode has it; what is missing is one `unknown`. */
export function eachGenerator<Key extends string = never>(
  check: string,
  context: CheckContext,
  unit: string,
  measure: (one: GeneratorCase) => Found<Key> | readonly Found<Key>[],
): Found<Key>[] {
  return context.installation.generators
    .filter(({ generator }) => generator.connection === context.mode.kind)
    .flatMap((set): Found<Key>[] => {
      const { generator, type } = set;
      const subject: Subject = { kind: 'generator', id: generator.id, label: generator.name };
      const compiled = context.installation.stacks.find((one) => one.stack.id === generator.stackId);
      if (compiled === undefined)
        return [unknownFinding(check, context, subject, unit, [['generators', generator.id, 'stackId']])];
      const { supply } = context.installation;
      const given = all({
        type,
        rating: generatorRating(set),
        board: generatorBoard(compiled),
        supply,
        reached:
          type.known && supply.known
            ? generatorLines(generator, type.value, supply.value)
            : known<number[]>([]),
      });
      if (!given.known) return [unknownFinding(check, context, subject, unit, given.missing)];
      return [measure({ subject, generator, compiled, ...given.value })].flat();
    });
}

/** Lines that a running generator gives to a set in this mode: all of them where the mode has none, or where nothing is known against it. */
export function fedLines(
  { installation, mode }: CheckContext,
  compiled: CompiledStack,
): Known<readonly number[] | 'all'> {
  const sets = installation.generators.filter(
    ({ generator }) => generator.connection === mode.kind && generator.stackId === compiled.stack.id,
  );
  if (sets.length === 0 || !installation.supply.known) return known('all');
  const { value: supply } = installation.supply;
  const found = sets.map(({ generator, type }) =>
    type.known ? generatorLines(generator, type.value, supply) : type,
  );
  const lines: number[] = [];
  for (const one of found) {
    if (!one.known) return one;
    lines.push(...one.value);
  }
  return known(lines);
}
