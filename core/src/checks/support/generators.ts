import { deratedVaOf } from '../../figures/generator/rating.ts';
import { generatorBoard } from '../../figures/loads/boards.ts';
import type { GeneratorType } from '../../catalogue/sourceTypes.ts';
import type { Board } from '../../figures/loads/board.ts';
import { generatorLines } from '../../installation/generatorLines.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { Supply } from '../../installation/supply.ts';
import { all, known } from '../../values/known.ts';
import type { Generator } from '../../installation/facts.ts';
import { type CheckContext, unknownFinding } from '../check.ts';
import type { Finding, Subject } from '../finding.ts';

/** A generator of this mode with what it carries. */
export interface GeneratorCase {
  readonly subject: Subject;
  readonly generator: Generator;
  readonly type: GeneratorType;
  /** Rating left at this altitude and heat. */
  readonly deratedVa: number;
  readonly board: Board;
  readonly compiled: CompiledStack;
  readonly supply: Supply;
  /** Numbers of the lines it reaches. */
  readonly reached: readonly number[];
}

/** Runs a measurement for each generator that is connected the way this mode has it; what is missing is one `unknown`. */
export function eachGenerator(
  check: string,
  context: CheckContext,
  unit: string,
  measure: (one: GeneratorCase) => Finding | readonly Finding[],
): Finding[] {
  return context.installation.generators
    .filter(({ generator }) => generator.connection === context.mode.kind)
    .flatMap((set): Finding[] => {
      const { generator, type } = set;
      const subject: Subject = { kind: 'generator', id: generator.id, label: generator.name };
      const compiled = context.installation.stacks.find((one) => one.stack.id === generator.stackId);
      if (compiled === undefined)
        return [unknownFinding(check, context, subject, unit, [['generators', generator.id, 'stackId']])];
      const { supply } = context.installation;
      const given = all({
        type,
        deratedVa: deratedVaOf(set),
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
