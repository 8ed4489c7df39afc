import { Check, CloudOff, LoaderCircle, TriangleAlert } from 'lucide-react';
import { useJob } from '../state/job.ts';

/** Whether what is on the screen is with the server. */
export function SaveMark() {
  const save = useJob((store) => store.save);
  const isHearing = useJob((store) => store.isHearing);
  const words = {
    saved: 'Saved',
    saving: 'Saving',
    offline: 'Kept on this device',
    refused: 'Not saved',
    conflict: 'Waiting for you',
  } as const;
  const icons = {
    saved: Check,
    saving: LoaderCircle,
    offline: CloudOff,
    refused: TriangleAlert,
    conflict: TriangleAlert,
  } as const;
  const Icon = icons[save.kind];
  return (
    <span
      className="inline-flex items-center gap-1 text-quiet"
      role="status"
      title={'message' in save ? save.message : undefined}
    >
      <Icon size={14} aria-hidden="true" />
      {words[save.kind]}
      {!isHearing && save.kind === 'saved' && ', changes of others do not arrive'}
    </span>
  );
}
