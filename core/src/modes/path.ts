import type { Contact, Network } from '../installation/network.ts';
import { remember } from '../values/remember.ts';

/** From each terminal to those it is joined to, and by which contact if there is one between. */
const neighbours = remember((network: Network) => {
  const next = new Map<string, { readonly to: string; readonly by: Contact | undefined }[]>();
  const add = (a: string, b: string, by: Contact | undefined): void => {
    for (const [from, to] of [
      [a, b],
      [b, a],
    ] as const) {
      const list = next.get(from);
      if (list === undefined) next.set(from, [{ to, by }]);
      else list.push({ to, by });
    }
  };
  for (const { a, b } of network.conductors) add(a, b, undefined);
  for (const contact of network.contacts) add(contact.a, contact.b, contact);
  return next;
});

const partOfTerminal = remember(
  (network: Network) =>
    new Map(
      network.ports.flatMap(({ partId, terminals }) => terminals.map(({ id }) => [id, partId] as const)),
    ),
);

/** The parts that the shortest way from one terminal to another passes, each once in a row; empty where there is no way. */
export function pathBetween(
  network: Network,
  isClosed: (contact: Contact) => boolean,
  from: readonly string[],
  to: ReadonlySet<string>,
): string[] {
  const next = neighbours(network);
  const cameFrom = new Map<string, string | undefined>(from.map((terminal) => [terminal, undefined]));
  const queue = [...from];
  for (let at = 0; at < queue.length; at += 1) {
    const terminal = queue[at];
    if (terminal === undefined) break;
    if (to.has(terminal)) return partsAlong(network, cameFrom, terminal);
    for (const { to: neighbour, by } of next.get(terminal) ?? []) {
      if (cameFrom.has(neighbour) || (by !== undefined && !isClosed(by))) continue;
      cameFrom.set(neighbour, terminal);
      queue.push(neighbour);
    }
  }
  return [];
}

function partsAlong(
  network: Network,
  cameFrom: ReadonlyMap<string, string | undefined>,
  end: string,
): string[] {
  const partOf = partOfTerminal(network);
  const parts: string[] = [];
  for (let at: string | undefined = end; at !== undefined; at = cameFrom.get(at)) {
    const part = partOf.get(at);
    if (part !== undefined && parts.at(-1) !== part) parts.push(part);
  }
  return parts.reverse();
}
