import {
  counted,
  describePlace,
  formatNumber,
  openFirstValues,
  pageOf,
  type Path,
  valueAt,
} from '@bastion/core';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { keepFirst } from '../state/firstValues.ts';
import { useOpenJob } from '../state/job.ts';
import { fieldHref, fieldKey } from './fieldLinks.ts';

/** How many are listed before the rest is counted. */
const LISTED = 40;

const shown = (value: unknown): string =>
  typeof value === 'number' ? formatNumber(value) : typeof value === 'string' ? value : 'as planned';

function Line({ path, onGo }: { readonly path: Path; readonly onGo: () => void }) {
  const { id, design, canEdit } = useOpenJob();
  const words = describePlace(design, path);
  return (
    <li className="flex items-baseline gap-2 border-t border-rule py-0.5">
      <Link to={fieldHref(id, path)} className="min-w-0 flex-1" onClick={onGo}>
        {words}
      </Link>
      <span className="truncate">{shown(valueAt(design, path))}</span>
      {canEdit && (
        <button
          type="button"
          className="button button-quiet"
          aria-label={`Keep ${words}`}
          onClick={() => keepFirst(`Keep ${words}`, new Set([fieldKey(path)]))}
        >
          Keep
        </button>
      )}
    </li>
  );
}

/** What of this stage the program has filled to begin with: to be looked at one by one, or kept together. */
export function FirstValuesBar() {
  const { design, canEdit } = useOpenJob();
  const page = useLocation().pathname.replace(/^\/jobs\/\d+\//, '');
  const [isOpen, setIsOpen] = useState(false);
  const here = openFirstValues(design).filter((path) => pageOf(path) === page);
  if (here.length === 0) return null;
  const words = counted(here.length, 'first value');
  return (
    <section aria-label="First values" className="no-print sheet mb-3 px-3 py-1.5">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <p className="min-w-0 flex-1">
          <strong>{words}</strong> on this page: the program began with {here.length === 1 ? 'it' : 'them'},
          nobody has looked at {here.length === 1 ? 'it' : 'them'} yet.
        </p>
        <button
          type="button"
          className="button button-quiet"
          aria-expanded={isOpen}
          onClick={() => setIsOpen(!isOpen)}
        >
          {isOpen ? 'Hide' : 'Look at'} {here.length === 1 ? 'it' : 'them'}
        </button>
        {canEdit && (
          <button
            type="button"
            className="button"
            onClick={() => keepFirst(`Keep ${words}`, new Set(here.map(fieldKey)))}
          >
            Keep all {here.length}
          </button>
        )}
      </div>
      {isOpen && (
        <ul
          className="mt-1 max-h-60 overflow-y-auto text-[13px]"
          tabIndex={0}
          aria-label="First values one by one"
        >
          {here.slice(0, LISTED).map((path) => (
            <Line key={fieldKey(path)} path={path} onGo={() => setIsOpen(false)} />
          ))}
          {here.length > LISTED && <li className="py-0.5 text-quiet">and {here.length - LISTED} more</li>}
        </ul>
      )}
    </section>
  );
}
