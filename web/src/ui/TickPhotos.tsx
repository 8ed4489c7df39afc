import type { DeliveryTick } from '@bastion/core';
import { Camera } from 'lucide-react';
import { useState } from 'react';
import { preparePhoto } from '../state/photo.ts';
import { useWaitingPhotos } from '../state/waitingPhotos.ts';
import { FilePicker } from './FilePicker.tsx';
import { Modal } from './Modal.tsx';
import { WaitingPhotos } from './WaitingPhotos.tsx';

function Photos({ ids }: { readonly ids: readonly number[] }) {
  const [shown, setShown] = useState<number>();
  return (
    <>
      {ids.map((photoId, index) => (
        <button
          key={photoId}
          type="button"
          className="overflow-hidden rounded-sm border border-edge"
          aria-label={`Photo ${index + 1}, larger`}
          onClick={() => setShown(photoId)}
        >
          <img
            src={`/api/attachments/${photoId}/thumbnail`}
            alt=""
            className="h-12 w-16 object-cover"
            loading="lazy"
          />
        </button>
      ))}
      <Modal title="Photo" isOpen={shown !== undefined} onClose={() => setShown(undefined)} wide>
        {shown !== undefined && (
          <img src={`/api/attachments/${shown}`} alt="As taken on site" className="mx-auto max-h-[75vh]" />
        )}
      </Modal>
    </>
  );
}

/** The photos of something noted on site, and a way to take one: kept on the device until it is sent. */
export function TickPhotos({
  lineId,
  what,
  tick,
  may,
}: {
  readonly lineId: string;
  readonly what: string;
  readonly tick: DeliveryTick | undefined;
  readonly may: boolean;
}) {
  const keepPhoto = useWaitingPhotos((store) => store.add);
  const [said, setSaid] = useState('');
  const addPhoto = async (file: File): Promise<void> => {
    setSaid(`Taking ${file.name} in…`);
    const prepared = await preparePhoto(file);
    if (prepared === undefined) {
      setSaid(`${file.name} is not a JPEG, PNG or WebP picture, so it was not kept.`);
      return;
    }
    const photo = { ...prepared, id: crypto.randomUUID(), lineId, what, name: file.name };
    setSaid((await keepPhoto(photo)) ?? '');
  };
  return (
    <>
      {may && (
        <FilePicker
          label={`Photo of ${what}`}
          accept="image/jpeg,image/png,image/webp"
          camera
          onFile={(file) => void addPhoto(file)}
        >
          <Camera size={16} aria-hidden="true" /> Photo
        </FilePicker>
      )}
      <Photos ids={tick?.photoIds ?? []} />
      <WaitingPhotos lineId={lineId} />
      <p role="status" className="font-semibold empty:hidden">
        {said}
      </p>
    </>
  );
}
