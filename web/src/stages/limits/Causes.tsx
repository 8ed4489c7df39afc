import { analysisCauses, type Cause, verdictOf } from '@bastion/core';
import { ChevronDown, ChevronRight, CornerDownRight } from 'lucide-react';
import { useState } from 'react';
import { useOpenJob } from '../../state/job.ts';
import { headroomWords, ratioOf } from '../../ui/FindingStrip.tsx';
import { HeadroomStrip } from '../../ui/HeadroomStrip.tsx';
import { StateMark } from '../../ui/StateMark.tsx';
import { CauseDetail } from './CauseDetail.tsx';
import { useSentence } from './useSentence.ts';

const SEVERITY_WORDS: Record<Cause['severity'], string> = {
  people: 'people',
  equipment: 'equipment',
  load: 'load drops',
  wear: 'wear',
};

function countWords({ findings, modes }: Cause): string {
  const count = findings.length === 1 ? '1 finding' : `${findings.length} findings`;
  return modes.length > 1 ? `${count}, ${modes.length} modes` : count;
}

function CauseRow({ cause }: { readonly cause: Cause }) {
  const [isOpen, setIsOpen] = useState(false);
  const sentence = useSentence(cause.worst);
  const follows = cause.follows !== undefined;
  return (
    <li className="keep-together border-t border-rule first:border-t-0">
      <button
        type="button"
        aria-expanded={isOpen}
        className="grid w-full grid-cols-[5.5rem_minmax(0,1fr)] gap-3 px-3 py-2 text-left hover:bg-chosen md:grid-cols-[5.5rem_minmax(0,1fr)_150px_8rem]"
        onClick={() => setIsOpen(!isOpen)}
      >
        <span>
          <StateMark state={cause.state} />
          <span className="block text-[12px] text-quiet">
            {cause.accepted ? 'accepted' : SEVERITY_WORDS[cause.severity]}
          </span>
        </span>
        <span className={follows ? 'flex gap-1.5 text-quiet' : ''}>
          {follows && (
            <CornerDownRight size={15} className="mt-1 shrink-0" aria-label="follows from the line above" />
          )}
          <span>
            <span className="font-semibold">{cause.title}</span>{' '}
            <span className="text-[12.5px] text-quiet">{countWords(cause)}</span>
            <br />
            {sentence}
          </span>
        </span>
        <span className="self-center max-md:hidden">
          {(cause.worst.margin !== undefined || cause.state === 'unknown') && (
            <HeadroomStrip state={cause.state} ratio={ratioOf(cause.worst)} />
          )}
        </span>
        <span
          className={`condensed flex items-center justify-end gap-1 text-right max-md:col-start-2 max-md:justify-start ${cause.state === 'over' ? 'font-semibold text-over' : ''}`}
        >
          {/* A rule that is kept or not has no figure of its own. */}
          {cause.state === 'unknown' || cause.worst.unit === '' ? '' : headroomWords(cause.worst)}
          {isOpen ? (
            <ChevronDown size={15} className="no-print text-quiet" aria-hidden="true" />
          ) : (
            <ChevronRight size={15} className="no-print text-quiet" aria-hidden="true" />
          )}
        </span>
      </button>
      {isOpen && <CauseDetail cause={cause} />}
    </li>
  );
}

/** The verdict in one sentence, and what it comes from: root first, people before equipment before load before wear. */
export function Causes() {
  const { analysis } = useOpenJob();
  const [showTight, setShowTight] = useState(false);
  const causes = analysisCauses(analysis);
  const tight = causes.filter(({ state }) => state === 'tight');
  const shown = showTight ? causes : causes.filter(({ state }) => state !== 'tight');
  return (
    <section aria-label="Verdict and causes" className="grid grid-cols-1 gap-2">
      <p className="max-w-4xl text-[17px] font-semibold" role="status">
        {verdictOf(analysis.installation, causes)}
      </p>
      {shown.length > 0 && (
        <ol className="sheet">
          {shown.map((cause) => (
            <CauseRow key={cause.id} cause={cause} />
          ))}
        </ol>
      )}
      {tight.length > 0 && (
        <button
          type="button"
          className="button no-print justify-self-start"
          aria-pressed={showTight}
          onClick={() => setShowTight(!showTight)}
        >
          {showTight ? 'Hide what is close to a limit' : `Show ${tight.length} close to a limit`}
        </button>
      )}
    </section>
  );
}
