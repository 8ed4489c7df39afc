import { checkById, type FindingChange, type NewerType, newerTypes, tryType } from '@bastion/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useCatalogue } from '../../state/catalogue.ts';
import { useJob, useOpenJob } from '../../state/job.ts';

const stateWords = (state: string | undefined): string => state ?? 'not there';

const LISTED = 8;

function FindingChanges({ changes }: { readonly changes: readonly FindingChange[] }) {
  if (changes.length === 0) return <p>No finding would come out otherwise.</p>;
  return (
    <>
      <p>
        {changes.length === 1
          ? 'One finding would come out otherwise:'
          : `${changes.length} findings would come out otherwise:`}
      </p>
      <ul className="condensed">
        {changes.slice(0, LISTED).map((one) => (
          <li key={`${one.check} ${one.subject} ${one.mode}`}>
            {checkById(one.check).title}, {one.subject} ({one.mode}): {stateWords(one.before)} →{' '}
            <strong className={one.after === 'over' ? 'text-over' : ''}>{stateWords(one.after)}</strong>
          </li>
        ))}
        {changes.length > LISTED && <li>and {changes.length - LISTED} more</li>}
      </ul>
    </>
  );
}

function OneNewer({ newer }: { readonly newer: NewerType }) {
  const { design, analysis, canEdit } = useOpenJob();
  const types = useCatalogue((store) => store.types);
  const change = useJob((store) => store.change);
  const [isOpen, setIsOpen] = useState(false);
  const { before, after, changes } = newer;
  const tried = useMemo(
    () => (isOpen ? tryType(design, after, analysis.findings, types) : undefined),
    [isOpen, design, after, analysis, types],
  );
  return (
    <li className="border-t border-rule py-1">
      <div className="flex flex-wrap items-center gap-2">
        <span className="flex-1">
          <Link to={`/catalogue/${after.id}`}>{after.name}</Link>: this job has version {before.version}, the
          catalogue has version {after.version}.
        </span>
        <button
          type="button"
          className="button"
          aria-expanded={isOpen}
          onClick={() => setIsOpen((open) => !open)}
        >
          What would change
        </button>
        {canEdit && (
          <button
            type="button"
            className="button"
            disabled={isOpen && tried === undefined}
            onClick={() =>
              change(`${after.name}, version ${after.version}`, (draft) => {
                const at = draft.types.findIndex((type) => type.id === after.id);
                if (at >= 0) draft.types[at] = after;
              })
            }
          >
            Take version {after.version}
          </button>
        )}
      </div>
      {isOpen && (
        <div className="grid gap-3 py-1 md:grid-cols-2">
          <ul className="condensed">
            {changes.map((one) => (
              <li key={one.key}>
                {one.label}: {one.before === '' ? 'not stated' : `${one.before} ${one.unit}`} →{' '}
                <strong>{one.after === '' ? 'not stated' : `${one.after} ${one.unit}`}</strong>
              </li>
            ))}
          </ul>
          <div>
            {tried === undefined ? (
              <p className="text-over">With this version the design would not be possible.</p>
            ) : (
              <FindingChanges changes={tried.changes} />
            )}
          </div>
        </div>
      )}
    </li>
  );
}

/** Types of this job of which the catalogue has a newer version. Nothing changes until somebody takes one. */
export function NewerTypes() {
  const { design } = useOpenJob();
  const types = useCatalogue((store) => store.types);
  const newer = useMemo(() => newerTypes(design, types), [design, types]);
  if (newer.length === 0) return null;
  return (
    <section className="sheet p-3" aria-label="Newer versions in the catalogue">
      <h2>Newer versions in the catalogue</h2>
      <p className="text-quiet">
        The job keeps what it was designed with until somebody takes the newer figures.
      </p>
      <ul className="mt-1">
        {newer.map((one) => (
          <OneNewer key={one.after.id} newer={one} />
        ))}
      </ul>
    </section>
  );
}
