import { CircleCheck, CircleDashed, OctagonX } from 'lucide-react';

/** What came of a rehearsal, in one sentence. */
export interface RehearsalVerdict {
  readonly state: 'within' | 'over' | 'unknown';
  readonly words: string;
}

const MARKS = {
  within: { icon: CircleCheck, colour: 'text-within' },
  over: { icon: OctagonX, colour: 'text-over' },
  unknown: { icon: CircleDashed, colour: 'text-unknown' },
} as const;

/** The verdict as the first thing to be seen, with a shape beside its colour. */
export function Verdict({ verdict: { state, words } }: { readonly verdict: RehearsalVerdict }) {
  const { icon: Icon, colour } = MARKS[state];
  return (
    <p className={`text-lg font-semibold ${colour}`} role="status">
      <Icon size={18} aria-hidden="true" className="inline" /> {words}
    </p>
  );
}
