import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from 'lucide-react';
import { useOpenJob } from '../../state/job.ts';
import { type Direction, isNudged, layBack, nudge } from './nudgeEdits.ts';

const BUTTONS: readonly { readonly to: Direction; readonly label: string; readonly icon: typeof ArrowUp }[] =
  [
    { to: 'left', label: 'Move left', icon: ArrowLeft },
    { to: 'up', label: 'Move up', icon: ArrowUp },
    { to: 'down', label: 'Move down', icon: ArrowDown },
    { to: 'right', label: 'Move right', icon: ArrowRight },
  ];

/** Moves the picked symbol on the drawing, and nothing else: where a part stands on the sheet says nothing of how it is joined. */
export function NudgeButtons({ nodeId }: { readonly nodeId: string }) {
  const { design, canEdit } = useOpenJob();
  if (!canEdit) return null;
  return (
    <div
      className="no-print mt-2 flex flex-wrap items-center gap-1 text-[13px]"
      role="group"
      aria-label="On the drawing"
    >
      <span className="text-quiet">On the drawing</span>
      {BUTTONS.map(({ to, label, icon: Icon }) => (
        <button
          key={to}
          type="button"
          className="button button-quiet"
          aria-label={label}
          title={`${label} (Alt and arrow)`}
          onClick={() => nudge(nodeId, to)}
        >
          <Icon size={14} aria-hidden="true" />
        </button>
      ))}
      {isNudged(design, nodeId) && (
        <button type="button" className="button" onClick={() => layBack(nodeId)}>
          Back to its place
        </button>
      )}
    </div>
  );
}
