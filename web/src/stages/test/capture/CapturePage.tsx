import { Link, useSearchParams } from 'react-router';
import { useOpenJob } from '../../../state/job.ts';
import { CapturePanel } from './CapturePanel.tsx';

/** A capture of its own, outside of a run. */
export function CapturePage() {
  const { id } = useOpenJob();
  const [asked] = useSearchParams();
  const keptId = Number(asked.get('kept') ?? 0);
  return (
    <div className="grid max-w-4xl gap-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2>Measure a capture</h2>
        <Link className="ml-auto" to={`/jobs/${id}/test`}>
          Back to the test
        </Link>
      </div>
      <p className="text-quiet">
        The record of a transfer or a start, measured without a ruler. Probes on live terminals are live work:
        rated probes, protective equipment, nobody alone.
      </p>
      <div className="sheet p-3">
        <CapturePanel keptId={Number.isInteger(keptId) && keptId > 0 ? keptId : undefined} />
      </div>
    </div>
  );
}
