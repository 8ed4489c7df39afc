import type { State } from '@bastion/core';
import { Circle, CircleDashed, OctagonX, TriangleAlert } from 'lucide-react';

const MARKS = {
  over: { icon: OctagonX, word: 'over', colour: 'text-over' },
  tight: { icon: TriangleAlert, word: 'tight', colour: 'text-tight' },
  within: { icon: Circle, word: 'within', colour: 'text-within' },
  unknown: { icon: CircleDashed, word: 'unknown', colour: 'text-unknown' },
} as const;

/** A state as a shape and a word, so that colour is never alone. */
export function StateMark({ state, silent = false }: { readonly state: State; readonly silent?: boolean }) {
  const { icon: Icon, word, colour } = MARKS[state];
  return (
    <span className={`inline-flex items-center gap-1 ${colour}`}>
      <Icon size={14} aria-hidden="true" strokeWidth={2.4} />
      {silent ? <span className="sr-only">{word}</span> : <span className="font-semibold">{word}</span>}
    </span>
  );
}
