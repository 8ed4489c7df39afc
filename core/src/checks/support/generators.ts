import type { GeneratorType } from '../../catalogue/schema.ts';
import type { Board } from '../../compile/board.ts';
import { all, unknownAt } from '../../design/known.ts';
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
}

/** Runs a measurement for each generator that is connected the way this mode has it; what is missing is one `unknown`. */
export function eachGenerator(
  check: string,
  context: CheckContext,
  unit: string,
  measure: (one: GeneratorCase) => Finding,
): Finding[] {
  return context.installation.generators
    .filter(({ generator }) => generator.connection === context.mode.kind)
    .map(({ generator, type, deratedVa }): Finding => {
      const subject: Subject = { kind: 'generator', id: generator.id, label: generator.name };
      const compiled = context.installation.stacks.find((one) => one.stack.id === generator.stackId);
      const given = all({
        type,
        deratedVa,
        board:
          compiled === undefined
            ? unknownAt(['generators', generator.id, 'stackId'])
            : compiled.generatorBoard,
      });
      return given.known
        ? measure({ subject, generator, ...given.value })
        : unknownFinding(check, context, subject, unit, given.missing);
    });
}
