import { type Answer, type Measurement, searchFault, type Symptom, SYMPTOMS } from '@bastion/core';
import { Check, Undo2, X } from 'lucide-react';
import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { z } from 'zod';
import { newId, useOpenJob } from '../../../state/job.ts';
import { useKept } from '../../../ui/useKept.ts';
import { FaultLog } from './FaultLog.tsx';
import { FigureRead, MeasuredElsewhere } from './FigureRead.tsx';
import { useLog } from './useLog.ts';

const SYMPTOM_KEYS = Object.keys(SYMPTOMS) as [Symptom, ...Symptom[]];
const searchSchema = z.object({
  logId: z.string().optional(),
  symptom: z.enum(SYMPTOM_KEYS).optional(),
  answers: z.array(z.object({ measurementId: z.string(), isAsExpected: z.boolean(), words: z.string() })),
});
type Search = z.infer<typeof searchSchema>;
const NOTHING_YET: Search = { answers: [] };

/** From what is seen to what is wrong: one measurement after the other, the one that leaves least first. The path stands in the log of the job. */
export function FaultPage() {
  const { id, analysis } = useOpenJob();
  const [kept, setSearch] = useKept(`faults.${id}`, searchSchema, NOTHING_YET);
  const [asked, setAsked] = useSearchParams();
  // Somebody who comes from a message looks for that one, and finds the path of before where it is the same.
  const wanted = SYMPTOM_KEYS.find((one) => one === asked.get('symptom'));
  const search: Search =
    wanted === undefined || kept.symptom === wanted ? kept : { symptom: wanted, answers: [] };
  const { symptom, answers } = search;
  const log = useLog();
  const found = useMemo(
    () => (symptom === undefined ? undefined : searchFault(analysis.installation, symptom, answers)),
    [analysis.installation, symptom, answers],
  );
  const next = found?.next;
  const answer = (to: Measurement, isAsExpected: boolean, read?: string): void => {
    const stood = isAsExpected ? `as expected (${to.expected})` : `not ${to.expected}`;
    const one: Answer & { readonly words: string } = {
      measurementId: to.id,
      isAsExpected,
      words: `${to.what} ${to.place}: ${read === undefined ? '' : `${read}, `}${stood}`,
    };
    const after: Search = { ...search, logId: search.logId ?? newId('f'), answers: [...answers, one] };
    setSearch(after);
    keep(after);
  };
  const keep = ({ logId, symptom: seen, answers: given }: Search): void => {
    if (logId === undefined || seen === undefined) return;
    const { left } = searchFault(analysis.installation, seen, given);
    log.keep({ id: logId, symptom: seen, answers: given, left: left.map(({ what }) => what) });
  };
  return (
    <div className="field-page grid max-w-2xl gap-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2>Find a fault</h2>
        <Link className="ml-auto" to={`/jobs/${id}/test`}>
          Back to the test
        </Link>
      </div>
      <label className="block">
        <span className="block text-[13px] text-quiet">What is seen</span>
        <select
          className="input"
          value={symptom ?? ''}
          onChange={({ target }) => {
            setAsked({}, { replace: true });
            setSearch({ symptom: SYMPTOM_KEYS.find((one) => one === target.value), answers: [] });
          }}
        >
          <option value="">choose</option>
          {SYMPTOM_KEYS.map((key) => (
            <option key={key} value={key}>
              {SYMPTOMS[key]}
            </option>
          ))}
        </select>
      </label>
      {found?.nothing !== undefined && <p className="text-unknown">{found.nothing}</p>}
      {next !== undefined && (
        <section className="sheet grid gap-2 p-3" aria-label="Next measurement">
          <h3 className="text-quiet">Measure next</h3>
          <p className="text-xl font-semibold">{next.what}</p>
          <p>{next.place}</p>
          <p>
            With: {next.instrument}. Expected: <strong>{next.expected}</strong>
          </p>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="button" onClick={() => answer(next, true)}>
              <Check size={18} aria-hidden="true" /> As expected
            </button>
            <button type="button" className="button" onClick={() => answer(next, false)}>
              <X size={18} aria-hidden="true" /> Otherwise
            </button>
          </div>
          <FigureRead key={next.id} measurement={next} onRead={answer} />
        </section>
      )}
      {found !== undefined && found.others.some(({ band }) => band !== undefined) && (
        <MeasuredElsewhere key={answers.length} others={found.others} onRead={answer} />
      )}
      {found !== undefined && found.nothing === undefined && (
        <section className="sheet p-3" aria-label="What may be wrong">
          <h3 className="font-semibold">
            {next === undefined && answers.length > 0 ? 'Left to mend' : 'What may be wrong, likeliest first'}
          </h3>
          {found.left.length === 0 ? (
            <p>
              Everything that is looked for here is cleared: choose another symptom, or ask whoever knows the
              type.
            </p>
          ) : (
            <ul className="list-disc pl-5">
              {found.left.map((one) => (
                <li key={one.id}>{one.what}</li>
              ))}
            </ul>
          )}
        </section>
      )}
      {answers.length > 0 && (
        <section className="sheet p-3" aria-label="Measured so far">
          <h3 className="font-semibold">Measured so far</h3>
          <ol className="list-decimal pl-5">
            {answers.map(({ measurementId, words }) => (
              <li key={measurementId}>{words}</li>
            ))}
          </ol>
          <button
            type="button"
            className="button mt-2"
            onClick={() => {
              const before: Search = { ...search, answers: answers.slice(0, -1) };
              setSearch(before);
              keep(before);
            }}
          >
            <Undo2 size={18} aria-hidden="true" /> Take the last one back
          </button>
        </section>
      )}
      <FaultLog log={log} openId={search.logId} />
      <p className="text-[13px] text-quiet">
        Measure with everything off and proven dead where the reading does not need it live. Live work: rated
        probes, protective equipment, nobody alone.
      </p>
    </div>
  );
}
