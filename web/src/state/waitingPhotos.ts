import type { wire } from '@bastion/core';
import { create } from 'zustand';
import { api, failureSentence, isTemporary } from '../api/client.ts';
import { unsent, type WaitingPhoto } from './unsent.ts';

const RETRY_MS = 4000;

/** A photo on its way, as it is shown: its small picture, and why the server did not take it. */
export interface PhotoOnItsWay {
  readonly photo: WaitingPhoto;
  readonly url: string;
  readonly refused?: string;
}

interface PhotoStore {
  readonly waiting: readonly PhotoOnItsWay[];
  /** Takes up what waits of a job, and sends it. `onSent` puts a photo that has arrived into the design. */
  readonly begin: (
    userId: number,
    jobId: number,
    onSent: (photo: WaitingPhoto, sent: wire.Attachment) => void,
  ) => void;
  readonly end: () => void;
  /** Keeps a photo and sends it. The sentence says why it could not even be kept. */
  readonly add: (photo: WaitingPhoto) => Promise<string | undefined>;
  /** Gives a photo up that the server does not take. */
  readonly drop: (id: string) => void;
}

interface Place {
  readonly userId: number;
  readonly jobId: number;
  readonly onSent: (photo: WaitingPhoto, sent: wire.Attachment) => void;
}

/** The photos of the open job that are not with the server yet. They are sent in order, whatever page of the job is open. */
export const useWaitingPhotos = create<PhotoStore>((set, get) => {
  let place: Place | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let isSending = false;

  const remove = (id: string): void => {
    const gone = get().waiting.find(({ photo }) => photo.id === id);
    if (gone !== undefined) URL.revokeObjectURL(gone.url);
    set({ waiting: get().waiting.filter(({ photo }) => photo.id !== id) });
    unsent.remove(id).catch(() => undefined);
  };

  /** Sends one. True where it is over: with the server, or refused for good. */
  const send = async ({ userId, jobId, onSent }: Place, photo: WaitingPhoto): Promise<boolean> => {
    try {
      const sent = await api.addPhoto(jobId, photo);
      if (place?.jobId !== jobId || place.userId !== userId) return true;
      onSent(photo, sent);
      remove(photo.id);
    } catch (error) {
      if (isTemporary(error)) return false;
      const refused = failureSentence(error);
      set({ waiting: get().waiting.map((one) => (one.photo.id === photo.id ? { ...one, refused } : one)) });
    }
    return true;
  };

  const sendAll = async (): Promise<void> => {
    if (isSending) return;
    isSending = true;
    clearTimeout(timer);
    for (;;) {
      const next = get().waiting.find(({ refused }) => refused === undefined);
      if (place === undefined || next === undefined) break;
      if (await send(place, next.photo)) continue;
      timer = setTimeout(() => void sendAll(), RETRY_MS);
      break;
    }
    isSending = false;
  };

  const show = (photos: readonly WaitingPhoto[]): void => {
    const known = new Set(get().waiting.map(({ photo }) => photo.id));
    const added = photos
      .filter(({ id }) => !known.has(id))
      .map((photo) => ({ photo, url: URL.createObjectURL(photo.thumbnail) }));
    set({ waiting: [...get().waiting, ...added] });
    void sendAll();
  };

  return {
    waiting: [],

    begin: (userId, jobId, onSent) => {
      get().end();
      const here: Place = { userId, jobId, onSent };
      place = here;
      unsent.photos(userId, jobId).then(
        (kept) => {
          if (place === here) show(kept);
        },
        () => undefined,
      );
    },

    end: () => {
      clearTimeout(timer);
      place = undefined;
      for (const { url } of get().waiting) URL.revokeObjectURL(url);
      set({ waiting: [] });
    },

    add: async (photo) => {
      const here = place;
      if (here === undefined) return 'The job is closed, so the photo was not kept.';
      try {
        await unsent.putPhoto(here.userId, here.jobId, photo);
      } catch {
        // Without a store the photo may only go straight to the server.
        return (await send(here, photo))
          ? undefined
          : 'Not kept: there is no connection, and this browser keeps nothing for later. Take the photo again once there is one.';
      }
      if (place === here) show([photo]);
      return undefined;
    },

    drop: remove,
  };
});
