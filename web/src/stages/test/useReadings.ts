import type { wire } from '@bastion/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { api, failureSentence, isTemporary } from '../../api/client.ts';
import { useSession } from '../../state/session.ts';
import { unsent, type WaitingReading } from '../../state/unsent.ts';

const RETRY_MS = 4000;

type ChangeRun = (change: (now: wire.TestRun) => wire.TestRun) => void;

/** The reading that a correction corrects: the last that the server has of the same place. */
function corrected(
  { readings }: wire.TestRun,
  { stepId, readingId, attempt }: wire.NewReading,
): number | undefined {
  return readings.findLast(
    (one) => one.stepId === stepId && one.readingId === readingId && one.attempt === attempt,
  )?.id;
}

/**
 * The readings of a run with those that wait on this device. A reading counts and is judged as soon as it is typed; it goes to the
 * server in order, under a key of its own, when there is a connection, whatever page or visit that is in.
 */
export function useReadings(run: wire.TestRun, onChange: ChangeRun) {
  const session = useSession((store) => store.session);
  const userId = session.kind === 'in' ? session.user.id : 0;
  const by = session.kind === 'in' ? session.user.name : '';
  const [waiting, setWaiting] = useState<readonly WaitingReading[]>([]);
  const [failure, setFailure] = useState('');
  const sending = useRef(false);
  const latest = useRef(run);
  useEffect(() => {
    latest.current = run;
  }, [run]);

  useEffect(() => {
    unsent.readings(userId, run.id).then(
      (kept) =>
        setWaiting((now) => [
          ...kept,
          ...now.filter(({ reading }) => !kept.some((one) => one.reading.key === reading.key)),
        ]),
      () => undefined,
    );
  }, [userId, run.id]);

  const done = useCallback((key: string | undefined): void => {
    setWaiting((now) => now.filter(({ reading }) => reading.key !== key));
    if (key !== undefined) unsent.remove(key).catch(() => undefined);
  }, []);

  const send = useCallback(
    async ({ reading, isCorrection }: WaitingReading): Promise<boolean> => {
      const corrects = isCorrection ? corrected(latest.current, reading) : undefined;
      try {
        const added = await api.addReading(run.id, {
          ...reading,
          ...(corrects === undefined ? {} : { corrects }),
        });
        const take = (now: wire.TestRun): wire.TestRun =>
          now.readings.some(({ id }) => id === added.id)
            ? now
            : { ...now, readings: [...now.readings, added] };
        latest.current = take(latest.current);
        onChange(take);
        done(reading.key);
        return true;
      } catch (error) {
        if (isTemporary(error)) return false;
        // The server will never take it: what was typed is told, so that it can be written down.
        setFailure(`${reading.value} was not recorded: ${failureSentence(error)}`);
        done(reading.key);
        return true;
      }
    },
    [run.id, onChange, done],
  );

  useEffect(() => {
    const [first] = waiting;
    if (first === undefined) return undefined;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const attempt = async (): Promise<void> => {
      if (sending.current) return;
      sending.current = true;
      const isOver = await send(first);
      sending.current = false;
      // What is over leaves the list, and the next one is the first; what is not is tried again in a while.
      if (isOver) setWaiting((now) => [...now]);
      else timer = setTimeout(() => void attempt(), RETRY_MS);
    };
    void attempt();
    return () => clearTimeout(timer);
  }, [waiting, send]);

  /** Takes a reading over. The sentence says why it could not even be kept. */
  const add = useCallback(
    async (reading: wire.NewReading, isCorrection: boolean): Promise<string | undefined> => {
      const one: WaitingReading = { reading, isCorrection, takenAt: new Date().toISOString() };
      try {
        await unsent.putReading(userId, run.id, one);
      } catch {
        // Without a store the reading may only go straight to the server.
        if (await send(one)) return undefined;
        return 'Not recorded: there is no connection, and this browser keeps nothing for later. The figure stays in its field; press Enter to send it again.';
      }
      setWaiting((now) => [...now, one]);
      return undefined;
    },
    [userId, run.id, send],
  );

  const readings = useMemo(
    (): readonly wire.Reading[] => [
      ...run.readings,
      ...waiting.map(({ reading, takenAt }, index): wire.Reading => ({
        ...reading,
        id: -1 - index,
        corrects: null,
        note: reading.note ?? '',
        source: reading.source ?? '',
        captureId: reading.captureId ?? null,
        by,
        at: takenAt,
      })),
    ],
    [run.readings, waiting, by],
  );

  return { readings, waiting: waiting.length, failure, add };
}
