import { randomUUID } from 'node:crypto';
import { isIP } from 'node:net';
import type { liveWire } from '@bastion/core';
import { RefusalError } from '../errors.ts';
import { DeviceLost, ModbusDevice } from '../live/modbusDevice.ts';

type Tell = (message: liveWire.LiveMessage) => void;

interface Link {
  readonly owner: string;
  readonly device: liveWire.LiveDevice;
}

/** So many links are remembered; the oldest is forgotten first. */
const MOST_LINKS = 200;
/** After a failure it is tried again so much later, ms: soon enough for a plug that was pulled, seldom enough for a device that is off. */
const AGAIN_MS = 2000;

const isThisMachine = (host: string): boolean =>
  host === 'localhost' || host === '::1' || (isIP(host) === 4 && host.startsWith('127.'));

/**
 * Reads devices for whoever listens. Only this machine, and what whoever runs the server allows, is ever connected to: an address is
 * taken as it is written, and a name only where it is allowed by that name.
 */
export function liveHub(allowed: readonly string[], now: () => Date) {
  const links = new Map<string, Link>();
  const stops = new Set<() => void>();

  const open = (owner: string, device: liveWire.LiveDevice): string => {
    if (!isThisMachine(device.host) && !allowed.includes(device.host)) throw new RefusalError('LIVE_HOST');
    if (links.size >= MOST_LINKS) {
      const [oldest] = links.keys();
      if (oldest !== undefined) links.delete(oldest);
    }
    const linkId = randomUUID();
    links.set(linkId, { owner, device });
    return linkId;
  };

  const mustOwn = (owner: string, linkId: string): void => {
    if (links.get(linkId)?.owner !== owner) throw new RefusalError('NOT_FOUND');
  };

  /** Reads a device over and over until it is told to stop. */
  const listen = (linkId: string, tell: Tell): (() => void) => {
    const link = links.get(linkId);
    if (link === undefined) return () => undefined;
    const { host, port, unitId, everyMs, rows } = link.device;
    const device = new ModbusDevice({ host, port, unitId, rows });
    let timer: NodeJS.Timeout | undefined;
    let isStopped = false;
    const look = async (): Promise<void> => {
      const startedMs = performance.now();
      let waitMs = everyMs;
      try {
        const { figures, refused } = await device.read();
        if (!isStopped) tell({ kind: 'figures', at: now().toISOString(), figures, refused: [...refused] });
      } catch (error) {
        const sentence = error instanceof DeviceLost ? error.message : 'The device cannot be read.';
        if (!isStopped) tell({ kind: 'lost', at: now().toISOString(), sentence });
        waitMs = Math.max(everyMs, AGAIN_MS);
      }
      if (isStopped) return;
      timer = setTimeout(() => void look(), Math.max(0, waitMs - (performance.now() - startedMs)));
    };
    void look();
    const stop = (): void => {
      isStopped = true;
      clearTimeout(timer);
      device.close();
      stops.delete(stop);
    };
    stops.add(stop);
    return stop;
  };

  return {
    open,
    mustOwn,
    listen,
    close: (): void => {
      for (const stop of stops) stop();
    },
  };
}
export type LiveHub = ReturnType<typeof liveHub>;
