import { liveWire } from '@bastion/core';
import { useCallback, useEffect, useState } from 'react';
import { api, failureSentence } from '../../../api/client.ts';

/** A figure as it was, for the trend. */
export interface TrendPoint {
  readonly atMs: number;
  readonly value: number;
}

export type LiveStatus = 'off' | 'joining' | 'live' | 'lost';

interface Heard {
  readonly status: LiveStatus;
  /** Why nothing is heard, or what the device refused. */
  readonly sentence: string;
  readonly figures: Readonly<Record<string, number | null>>;
  readonly trends: ReadonlyMap<string, readonly TrendPoint[]>;
}

const NOTHING: Heard = { status: 'off', sentence: '', figures: {}, trends: new Map() };
/** So far back the trend of a figure goes. */
const TREND_MS = 120_000;
const MOST_POINTS = 600;
/** After the server has forgotten a link it is joined again so much later. */
const AGAIN_MS = 3000;

export interface Live extends Heard {
  readonly device: liveWire.LiveDevice | undefined;
  readonly join: (device: liveWire.LiveDevice) => void;
  readonly leave: () => void;
}

/** A device's figures are added to the trends; what is older than they go is let go. Circuits have none: there are hundreds. */
function grown(
  trends: ReadonlyMap<string, readonly TrendPoint[]>,
  figures: Heard['figures'],
  atMs: number,
): ReadonlyMap<string, readonly TrendPoint[]> {
  const next = new Map(trends);
  for (const [key, value] of Object.entries(figures)) {
    if (value === null || key.startsWith('circuit.')) continue;
    const before = (next.get(key) ?? []).filter((point) => atMs - point.atMs < TREND_MS).slice(-MOST_POINTS);
    next.set(key, [...before, { atMs, value }]);
  }
  return next;
}

/** A device that is read live while the page is open. What is not heard any more is not shown: a lost link leaves no figure behind. */
export function useLive(jobId: number): Live {
  const [link, setLink] = useState<{ readonly device: liveWire.LiveDevice; readonly linkId: string }>();
  const [heard, setHeard] = useState(NOTHING);

  const lose = useCallback(
    (sentence: string): void => setHeard((now) => ({ ...now, status: 'lost', sentence, figures: {} })),
    [],
  );

  useEffect(() => {
    if (link === undefined) return undefined;
    const source = new EventSource(`/api/jobs/${jobId}/live/${link.linkId}`);
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const read = liveWire.liveMessage.safeParse(JSON.parse(data));
      if (!read.success) return;
      const message = read.data;
      if (message.kind === 'lost') {
        lose(message.sentence);
        return;
      }
      const atMs = Date.parse(message.at);
      setHeard((now) => ({
        status: 'live',
        sentence: message.refused.join(' '),
        figures: message.figures,
        trends: grown(now.trends, message.figures, atMs),
      }));
    };
    let timer: ReturnType<typeof setTimeout> | undefined;
    // A server that was started anew knows the link no longer, and the browser gives it up: it is joined again by its device.
    const again = (): void => {
      timer = setTimeout(() => {
        api
          .openLive(jobId, link.device)
          .then(({ linkId }) => setLink({ device: link.device, linkId }), again);
      }, AGAIN_MS);
    };
    source.onerror = () => {
      lose('The server does not answer; it is tried again.');
      if (source.readyState === EventSource.CLOSED) again();
    };
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [jobId, link, lose]);

  const join = useCallback(
    (device: liveWire.LiveDevice): void => {
      setHeard({ ...NOTHING, status: 'joining' });
      api.openLive(jobId, device).then(
        ({ linkId }) => setLink({ device, linkId }),
        (error: unknown) => setHeard({ ...NOTHING, sentence: failureSentence(error) }),
      );
    },
    [jobId],
  );

  const leave = useCallback((): void => {
    setLink(undefined);
    setHeard(NOTHING);
  }, []);

  return { ...heard, device: link?.device, join, leave };
}
