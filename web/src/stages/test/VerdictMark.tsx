import type { Verdict } from '@bastion/core';
import {
  Circle,
  CircleCheck,
  CircleDashed,
  CircleSlash,
  NotebookPen,
  OctagonX,
  TriangleAlert,
} from 'lucide-react';
import { VERDICT_WORDS } from './runView.ts';

const MARKS = {
  abort: { icon: OctagonX, colour: 'text-over' },
  outside: { icon: TriangleAlert, colour: 'text-over' },
  'not-judged': { icon: CircleDashed, colour: 'text-unknown' },
  within: { icon: CircleCheck, colour: 'text-within' },
  recorded: { icon: NotebookPen, colour: 'text-within' },
  skipped: { icon: CircleSlash, colour: 'text-tight' },
  pending: { icon: Circle, colour: 'text-quiet' },
} as const;

/** A verdict as a shape and a word. */
export function VerdictMark({
  verdict,
  silent = false,
}: {
  readonly verdict: Verdict;
  readonly silent?: boolean;
}) {
  const { icon: Icon, colour } = MARKS[verdict];
  return (
    <span className={`inline-flex items-center gap-1 ${colour}`}>
      <Icon size={16} aria-hidden="true" strokeWidth={2.2} />
      <span className={silent ? 'sr-only' : 'font-semibold'}>{VERDICT_WORDS[verdict]}</span>
    </span>
  );
}
