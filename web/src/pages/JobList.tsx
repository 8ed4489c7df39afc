import { POWERS, REGIONS, type wire } from '@bastion/core';
import { formatDistanceToNow } from 'date-fns';
import { FilePlus } from 'lucide-react';
import { type SyntheticEvent, useCallback, useEffect, useId, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, failureSentence } from '../api/client.ts';
import { useSession } from '../state/session.ts';
import { StateMark } from '../ui/StateMark.tsx';
import { DocumentFileButton } from '../ui/DocumentFileButton.tsx';

function worstState(counts: wire.JobSummary['counts']): 'over' | 'unknown' | 'tight' | 'within' {
  if (counts.over > 0) return 'over';
  if (counts.unknown > 0) return 'unknown';
  return counts.tight > 0 ? 'tight' : 'within';
}

function JobRow({ job }: { readonly job: wire.JobSummary }) {
  const { counts } = job;
  return (
    <tr className="border-t border-rule align-top">
      <td className="py-2 pr-4">
        <Link to={`/jobs/${job.id}`} className="text-[15px] font-semibold">
          {job.name}
        </Link>
      </td>
      <td className="py-2 pr-4 whitespace-nowrap">{job.stage}</td>
      <td className="py-2 pr-4">
        <div className="flex items-start gap-2">
          <StateMark state={worstState(counts)} />
          <span className="flex-1">{job.verdict}</span>
        </div>
        <p className="condensed text-quiet">
          {counts.over} over, {counts.unknown} unknown, {counts.tight} tight, {counts.within} within
        </p>
      </td>
      <td className="py-2 whitespace-nowrap">
        {job.changedBy}
        <br />
        <span className="text-quiet">
          {formatDistanceToNow(new Date(job.changedAt), { addSuffix: true })}
        </span>
      </td>
    </tr>
  );
}

const REGION_KEY = 'bastion.region';

/** The supply of the last job that was started here: most firms work in one region. */
function lastRegion(): string {
  try {
    const kept = localStorage.getItem(REGION_KEY);
    return REGIONS.some(({ id }) => id === kept) ? (kept ?? '') : '';
  } catch {
    return '';
  }
}

function rememberRegion(region: string): void {
  try {
    localStorage.setItem(REGION_KEY, region);
  } catch {
    // A browser that keeps nothing asks again next time.
  }
}

function NewJob({ onFail }: { readonly onFail: (message: string) => void }) {
  const [name, setName] = useState('');
  const [region, setRegion] = useState(lastRegion);
  const regionId = useId();
  const navigate = useNavigate();
  const go = ({ id }: { id: number }): void => void navigate(`/jobs/${id}`);
  const create = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (name.trim() === '') return;
    rememberRegion(region);
    api
      .createJob(name.trim(), region === '' ? undefined : region)
      .then(go, (error: unknown) => onFail(failureSentence(error)));
  };
  return (
    <form className="mt-4 flex flex-wrap items-end gap-2" onSubmit={create}>
      <label className="block">
        <span className="block text-[13px] text-quiet">Name of a new job</span>
        <input
          className="input w-72"
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <div>
        <label htmlFor={regionId} className="block text-[13px] text-quiet">
          Supply and sizes
        </label>
        <select
          id={regionId}
          className="input w-72"
          value={region}
          onChange={(event) => setRegion(event.target.value)}
        >
          <option value="">not known yet</option>
          {REGIONS.map(({ id, label }) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </select>
      </div>
      <button type="submit" className="button" disabled={name.trim() === ''}>
        <FilePlus size={15} aria-hidden="true" /> Start empty
      </button>
      <DocumentFileButton
        label="Start from a JSON file"
        chooserLabel="JSON file for a new job"
        onDesign={(design) =>
          void api.importJob(design).then(go, (error: unknown) => onFail(failureSentence(error)))
        }
        onFail={onFail}
      />
    </form>
  );
}

/** The jobs of the firm: where each stands, what stands between it and its test, and who touched it last. */
export function JobList() {
  const [jobs, setJobs] = useState<readonly wire.JobSummary[]>();
  const [failure, setFailure] = useState('');
  const session = useSession((store) => store.session);
  const load = useCallback(() => {
    api.jobs().then(setJobs, (error: unknown) => setFailure(failureSentence(error)));
  }, []);
  useEffect(load, [load]);
  const mayCreate = session.kind === 'in' && POWERS[session.user.role].design;
  return (
    <main className="h-full overflow-y-auto p-5">
      <div className="mx-auto max-w-5xl">
        <h1>Jobs</h1>
        <p role="alert" className="mt-2 font-semibold text-over empty:hidden">
          {failure}
        </p>
        {jobs === undefined && failure === '' && <p className="mt-4 text-quiet">Fetching the jobs…</p>}
        {jobs?.length === 0 && (
          <p className="mt-4">No jobs yet. Start an empty one, or bring a design as a JSON file.</p>
        )}
        {jobs !== undefined && jobs.length > 0 && (
          <div className="sheet mt-4 relative overflow-x-auto p-4">
            <table className="w-full min-w-[640px]">
              <thead>
                <tr className="text-left text-quiet">
                  <th className="pb-2 font-medium">Job</th>
                  <th className="pb-2 font-medium">Next stage</th>
                  <th className="pb-2 font-medium">What stands before the test</th>
                  <th className="pb-2 font-medium">Last change</th>
                </tr>
              </thead>
              <tbody>
                {jobs.map((job) => (
                  <JobRow key={job.id} job={job} />
                ))}
              </tbody>
            </table>
          </div>
        )}
        {mayCreate && <NewJob onFail={setFailure} />}
      </div>
    </main>
  );
}
