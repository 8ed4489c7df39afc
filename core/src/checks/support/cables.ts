import { leadSizeWords } from '../../codes/leadSizes.ts';
import type { CableLine } from '../../figures/wiring/cableLine.ts';
import { sizedLines } from '../../figures/wiring/cableLines.ts';
import { remember } from '../../values/remember.ts';
import type { Installation } from '../../installation/installation.ts';
import { type AskedLine, askLine } from '../../sizing/askLine.ts';
import type { SizeAnswer, SizeTest } from '../../sizing/question.ts';
import { chosenSize } from '../../sizing/sizeLine.ts';
import { strainOf } from '../../sizing/judgeSize.ts';
import { type CheckContext, judge, NO_WORKING, unknownFinding } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { onNetwork, refsOf, troubleOrOne, WHOLE } from './network.ts';

/** A finding about a cable: it stands on both of its ends, and on what is in between. */
export function cableSubject({ network }: Installation, line: CableLine): Subject {
  if (line.circuit !== undefined) return { kind: 'part', id: line.id, label: line.label };
  const ids = [
    ...line.ends.map(({ partId }) => partId),
    ...line.devices.flatMap(({ partId }) => partId ?? []),
  ];
  return {
    kind: 'part',
    id: line.id,
    label: line.label.charAt(0).toUpperCase() + line.label.slice(1),
    about: network.known ? refsOf(network.value, ids) : [],
  };
}

/** What is added to a sentence, with the space before it. */
const TEST_WORDS: Readonly<Partial<Record<SizeTest, string>>> = {
  'terminal-column': ' by the column of its terminals',
  'start-drop': ' while it starts',
  parallel: ' in parallel',
};

function findingOf(
  check: string,
  context: CheckContext,
  { line, carried, laidAs }: AskedLine,
  answer: SizeAnswer,
): Found<'size' | 'when'> {
  const { areaMm2 } = line;
  return judge(check, context, {
    subject: cableSubject(context.installation, line),
    value: answer.value,
    limit: answer.limit,
    unit: answer.unit === '' ? 'fraction' : answer.unit,
    bound: answer.test === 'parallel' ? 'at-least' : 'at-most',
    // A conductor that carries just what it has to is what a designer aims for.
    graded: false,
    data: {
      size: areaMm2.known ? leadSizeWords(areaMm2.value) : '',
      when: TEST_WORDS[answer.test] ?? '',
    },
    working: () => ({
      ...NO_WORKING,
      inputs: [
        { label: 'Size', path: line.areaPath, value: areaMm2.known ? areaMm2.value : undefined, unit: 'mm²' },
        {
          label: 'Length',
          path: line.lengthPath,
          value: line.lengthM.known ? line.lengthM.value : undefined,
          unit: 'm',
        },
      ],
      source: `${carried.because}. ${answer.working()}.`,
      notes:
        laidAs.planned.length === 0
          ? []
          : [`As planned, since nobody has said otherwise: ${laidAs.planned.join(', ')}.`],
    }),
  });
}

const worstByTests = remember(
  (_tests: ReadonlySet<SizeTest>) => new WeakMap<AskedLine, { answer: SizeAnswer | undefined }>(),
);

/** Of some tests of a stated size the one that is nearest to its limit, or furthest past it: once for each cable as it is asked. */
function worstAnswer(asked: AskedLine, tests: ReadonlySet<SizeTest>): SizeAnswer | undefined {
  const made = worstByTests(tests);
  const before = made.get(asked);
  if (before !== undefined) return before.answer;
  const answer = (chosenSize(asked, tests)?.answers ?? []).reduce<SizeAnswer | undefined>(
    (worst, one) => (worst === undefined || strainOf(one) > strainOf(worst) ? one : worst),
    undefined,
  );
  made.set(asked, { answer });
  return answer;
}

/** Which cables a check looks at, and which tests of their size. */
export interface CableTests {
  readonly id: string;
  readonly tests: ReadonlySet<SizeTest>;
  readonly looksAt: (line: CableLine) => boolean;
  readonly whole: string;
  /** Whether what is not known of the load is told here: where no other check asks for it. */
  readonly asksForLoad?: boolean;
}

/**
 * Holds every cable whose size is stated against some tests of a size; of several of one cable the worst is told. A cable whose load
 * is not known is not asked for here: the load is.
 */
export const eachStatedCable = (
  context: CheckContext,
  { id, tests, looksAt, whole, asksForLoad = false }: CableTests,
): Found<'size' | 'when'>[] =>
  onNetwork(id, context, () => {
    const { installation } = context;
    const lines = sizedLines(installation);
    if (!lines.known) return [];
    const findings = lines.value.flatMap((line): Found<'size' | 'when'>[] => {
      if (!line.areaMm2.known || !looksAt(line)) return [];
      const asked = askLine(installation, line);
      if (asked === undefined) return [];
      if (!asked.known)
        return asksForLoad
          ? [unknownFinding(id, context, cableSubject(installation, line), 'A', asked.missing)]
          : [];
      const worst = worstAnswer(asked.value, tests);
      return worst === undefined ? [] : [findingOf(id, context, asked.value, worst)];
    });
    return troubleOrOne(findings, { ...WHOLE, label: whole });
  });
