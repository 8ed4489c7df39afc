import { CloudOff } from 'lucide-react';
import { downloadBlob } from '../state/documentFile.ts';
import { useWaitingPhotos } from '../state/waitingPhotos.ts';

/** Photos of a line that are on this device and not with the server yet. One that the server does not take is not lost either. */
export function WaitingPhotos({ lineId }: { readonly lineId: string }) {
  const waiting = useWaitingPhotos((store) => store.waiting);
  const drop = useWaitingPhotos((store) => store.drop);
  return waiting
    .filter(({ photo }) => photo.lineId === lineId)
    .map(({ photo, url, refused }) => (
      <figure key={photo.id} className="flex items-center gap-1">
        <img
          src={url}
          alt={`${photo.name}, on this device`}
          className="h-12 w-16 rounded-sm border border-edge object-cover opacity-70"
        />
        <figcaption className="text-[13px] text-quiet" role="status">
          {refused === undefined ? (
            <>
              <CloudOff size={14} aria-hidden="true" className="inline" /> on this device, not sent yet
            </>
          ) : (
            <span className="text-over">{refused}</span>
          )}
        </figcaption>
        {refused !== undefined && (
          <>
            <button type="button" className="button" onClick={() => downloadBlob(photo.photo, photo.name)}>
              Save as a file
            </button>
            <button type="button" className="button" onClick={() => drop(photo.id)}>
              Give it up
            </button>
          </>
        )}
      </figure>
    ));
}
