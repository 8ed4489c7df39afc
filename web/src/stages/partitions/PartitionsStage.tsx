import { useJob, useOpenJob } from '../../state/job.ts';
import { AdvicePanel } from './AdvicePanel.tsx';
import { Board } from './Board.tsx';
import { HeadroomPanel } from './HeadroomPanel.tsx';
import { addUsualPartitions } from './lanes.ts';

/** Which circuits the backup carries: lanes with their circuits by line, advice, and the headroom that moves with them. */
export function PartitionsStage() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  if (design.partitions.length === 0) {
    return (
      <div className="sheet max-w-xl p-6">
        <h2>No boards yet</h2>
        <p className="mt-2">
          Start with two: a grid side that goes dark in an outage, and a backup output that is carried. More
          can be added.
        </p>
        {canEdit && (
          <button
            type="button"
            className="button button-main mt-4"
            onClick={() => change('Add the usual boards', addUsualPartitions)}
          >
            Add grid side and backup output
          </button>
        )}
      </div>
    );
  }
  return (
    <div className="grid grid-cols-1 items-start gap-4 xl:grid-cols-[minmax(0,1fr)_400px]">
      <div className="min-w-0">
        <h2 className="sr-only">Partitions</h2>
        <AdvicePanel />
        <Board />
        <p className="mt-2 text-[12.5px] text-quiet">
          Bars are as long as their VA at the expected peak, one after the other; the thin line below them is
          the load with the largest start. The headroom adds them as phasors.
        </p>
      </div>
      <HeadroomPanel />
    </div>
  );
}
