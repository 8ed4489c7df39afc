import { pairOfPin } from '../../codes/pairColours.ts';
import type { LinkAsWired } from '../../installation/facts.ts';
import type { Installation } from '../../installation/installation.ts';
import type { CommsLink, Part } from '../../installation/network.ts';
import { type Known, mapKnown } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';

/** What a healthy pair shows at rest where its type says nothing, V. */
export const IDLE_V = { min: 3.8, max: 5 } as const;

/**
 * What a straight cable, pin to the same pin, makes of a link whose pins are stated at both ends: right, + and − exchanged, or cores on
 * pins where nothing listens.
 */
export type Crossing = 'right' | 'exchanged' | 'elsewhere';

/** The longest network cable of copper pairs from end to end, patch cords counted, m (ISO/IEC 11801, channel of balanced cabling). */
export const LONGEST_NETWORK_M = 100;

/** A cable of comms with what its types demand and what somebody has said of it. */
export interface LinkFigure {
  readonly link: CommsLink;
  readonly ends: readonly [Part | undefined, Part | undefined];
  readonly wired: LinkAsWired | undefined;
  /** Undefined where a type does not state its pins. */
  readonly straight: Crossing | undefined;
  /** + and − of the host end lie in two pairs: no pair is twisted with itself. */
  readonly isSplit: boolean;
  /** Only the cable that comes with the equipment may be used. */
  readonly suppliedOnly: boolean;
  /** The shorter of what both ends allow, m. */
  readonly longestM: number | undefined;
}

/** Pairs that a voltmeter finds at rest between the parts of a set; a network of a building shows none. */
export const isBusPair = ({ kind }: CommsLink): boolean => kind !== 'network';

function straightOf({ a, b }: CommsLink): Crossing | undefined {
  const [from, to] = [a.pins, b.pins];
  if (from === undefined || to === undefined) return undefined;
  if (from.plus === to.plus && from.minus === to.minus) return 'right';
  return from.plus === to.minus && from.minus === to.plus ? 'exchanged' : 'elsewhere';
}

function isSplit({ a }: CommsLink): boolean {
  const [plus, minus] = [pairOfPin(a.pins?.plus ?? ''), pairOfPin(a.pins?.minus ?? '')];
  return plus !== undefined && minus !== undefined && plus !== minus;
}

function longestOf(installation: Installation, { a, b, from, kind, by }: CommsLink): number | undefined {
  if (kind === 'network') return by === 'radio' ? undefined : LONGEST_NETWORK_M;
  const instrument = installation.instruments.find(({ instrument: { id } }) => from[1] === id);
  const type = instrument?.type.known === true ? instrument.type.value : undefined;
  const all = [a.pins?.longestM, b.pins?.longestM, type?.kind === 'sensor' ? type.longestLeadM : undefined];
  const stated = all.filter((one) => one !== undefined);
  return stated.length === 0 ? undefined : Math.min(...stated);
}

/** Every cable of comms with its figures. Not known while the network is not. */
export const linkFigures = remember((installation: Installation): Known<readonly LinkFigure[]> =>
  mapKnown(installation.network, ({ links, parts }) => {
    const byId = new Map(parts.map((part) => [part.id, part]));
    const wired = new Map(installation.wiring?.links?.map((one) => [one.linkId, one]) ?? []);
    return links.map((link): LinkFigure => {
      const a = byId.get(link.a.partId);
      const b = byId.get(link.b.partId);
      const type = installation.stacks.find(({ stack }) => stack.id === (a?.stackId ?? b?.stackId))?.type;
      const rule = type?.known === true ? type.value.parallelBus?.cable : undefined;
      return {
        link,
        ends: [a, b],
        wired: wired.get(link.id),
        straight: straightOf(link),
        isSplit: isSplit(link),
        suppliedOnly: link.kind === 'parallel-bus' && rule === 'supplied-only',
        longestM: longestOf(installation, link),
      };
    });
  }),
);
