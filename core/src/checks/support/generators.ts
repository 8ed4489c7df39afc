import type { GeneratorType } from '../../catalogue/sourceTypes.ts';
import type { Board } from '../../compile/board.ts';
import { generatorLines } from '../../compile/generatorLines.ts';
import type { CompiledStack } from '../../compile/installation.ts';
import type { Supply } from '../../compile/supply.ts';
import { all, known } from '../../design/known.ts';
import type { Generator } from '../../design/schema.ts';
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
    .flatMap(({ generator, type, deratedVa }): Finding[] => {
      const subject: Subject = { kind: 'generator', id: generator.id, label: generator.name };
      const compiled = context.installation.stacks.find((one) => one.stack.id === generator.stackId);
      if (compiled === undefined)
        return [unknownFinding(check, context, subject, unit, [['generators', generator.id, 'stackId']])];
      const { supply } = context.installation;
      const given = all({
        type,
        deratedVa,
        board: compiled.generatorBoard,
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
