import { type Cause, describePlace, subjectKey } from '@bastion/core';
import { Link } from 'react-router';
import { useDrawer } from '../../state/drawer.ts';
import { useOpenJob } from '../../state/job.ts';
import { fieldHref } from '../../ui/fieldLinks.ts';
import { Accepting } from './Accepting.tsx';
import { MendList } from './MendList.tsx';
import { useSentence } from './useSentence.ts';

/** How many places or findings a cause spells out. */
const LISTED = 12;

function OneFinding({ finding }: { readonly finding: Cause['worst'] }) {
  const open = useDrawer((store) => store.open);
  const sentence = useSentence(finding);
  return (
    <li className="flex flex-wrap items-baseline gap-x-3 py-0.5">
      <span className="min-w-0 flex-1">{sentence}</span>
      <button type="button" className="button button-quiet no-print" onClick={() => open(finding)}>
        Working
      </button>
    </li>
  );
}

/** What a cause is made of, what would clear it, and who may accept it. */
export function CauseDetail({ cause }: { readonly cause: Cause }) {
  const { id, design } = useOpenJob();
  // The same check on the same thing is one finding to whoever accepts it, in whatever modes it holds.
  const distinct = [
    ...new Map(
      [...cause.findings]
        .reverse()
        .map((finding) => [`${finding.check} ${subjectKey(finding.subject)}`, finding]),
    ).values(),
  ].reverse();
  return (
    <div className="grid gap-3 border-t border-dashed border-rule bg-ground px-3 py-3 md:pl-[7rem]">
      {cause.state === 'unknown' && (
        <div>
          <h3 className="font-semibold">Say it here</h3>
          <ul className="columns-1 md:columns-2">
            {cause.missing.slice(0, LISTED).map((path) => (
              <li key={path.join('/')}>
                <Link to={fieldHref(id, path)}>{describePlace(design, path)}</Link>
              </li>
            ))}
            {cause.missing.length > LISTED && <li>and {cause.missing.length - LISTED} more</li>}
          </ul>
        </div>
      )}
      {cause.state !== 'unknown' && cause.follows === undefined && !cause.accepted && (
        <MendList cause={cause} />
      )}
      {cause.follows !== undefined && (
        <p className="text-quiet">
          This follows from the cause above it: mend that first, then see what is left.
        </p>
      )}
      <div>
        <h3 className="font-semibold">
          {distinct.length === 1 ? 'The finding' : `${distinct.length} findings`}
        </h3>
        <ul>
          {distinct.slice(0, LISTED).map((finding) => (
            <OneFinding key={`${finding.check} ${subjectKey(finding.subject)}`} finding={finding} />
          ))}
          {distinct.length > LISTED && <li>and {distinct.length - LISTED} more below</li>}
        </ul>
      </div>
      {cause.state !== 'tight' && <Accepting findings={distinct.slice(0, LISTED)} />}
    </div>
  );
}
