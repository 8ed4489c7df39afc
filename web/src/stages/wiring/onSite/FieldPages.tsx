import { counted } from '@bastion/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { useOpenJob } from '../../../state/job.ts';

/** One page of many: what is looked at together, with the ids of what is noted of it. */
interface FieldGroup {
  readonly title: string;
  readonly ids: readonly string[];
  readonly content: ReactNode;
}

/** Lists for the hands: one group at a time, large, with how far the device and the job are. */
export function FieldPages({
  title,
  thing,
  done,
  groupName,
  groups,
  isDone,
  isAgain,
  empty,
  caution,
  wantsPhoto = false,
}: {
  readonly title: string;
  readonly thing: string;
  readonly done: string;
  readonly groupName: string;
  readonly groups: readonly FieldGroup[];
  readonly isDone: (id: string) => boolean;
  readonly isAgain: (id: string) => boolean;
  readonly empty: string;
  readonly caution: string;
  readonly wantsPhoto?: boolean;
}) {
  const { id } = useOpenJob();
  const [at, setAt] = useState(0);
  const group = groups[Math.min(at, groups.length - 1)];
  if (group === undefined) return <p className="sheet max-w-xl p-6">{empty}</p>;
  const all = groups.flatMap(({ ids }) => ids);
  const ready = all.filter(isDone).length;
  const again = all.filter(isAgain).length;
  return (
    <div className="field-page grid max-w-2xl gap-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2>{title}</h2>
        <Link className="ml-auto" to={`/jobs/${id}/wiring`}>
          Back to the drawing
        </Link>
      </div>
      <p>
        {ready} of {counted(all.length, thing)} {done}
        {again > 0 && <strong className="text-over">, {again} to be made again</strong>}.
        {wantsPhoto && ' Each counts only with a photo.'}
      </p>
      <progress className="w-full" value={ready} max={all.length} aria-label={done} />
      <div className="flex items-end gap-2">
        <button
          type="button"
          className="button"
          disabled={at === 0}
          aria-label={`The ${groupName.toLowerCase()} before`}
          onClick={() => setAt(at - 1)}
        >
          <ChevronLeft size={18} aria-hidden="true" />
        </button>
        <div className="min-w-0 flex-1">
          <span className="block text-[13px] text-quiet" aria-hidden="true">
            {groupName}
          </span>
          <select
            aria-label={groupName}
            className="input"
            value={Math.min(at, groups.length - 1)}
            onChange={({ target }) => setAt(Number(target.value))}
          >
            {groups.map((one, index) => (
              <option key={one.title} value={index}>
                {one.title}: {one.ids.filter(isDone).length} of {one.ids.length}
              </option>
            ))}
          </select>
        </div>
        <button
          type="button"
          className="button"
          disabled={at >= groups.length - 1}
          aria-label={`The next ${groupName.toLowerCase()}`}
          onClick={() => setAt(at + 1)}
        >
          <ChevronRight size={18} aria-hidden="true" />
        </button>
      </div>
      {group.content}
      <p className="text-[13px] text-quiet">{caution}</p>
    </div>
  );
}
