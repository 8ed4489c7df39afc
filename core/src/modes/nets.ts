import type { Contact, Network } from '../installation/network.ts';
import { MODE_KINDS } from '../installation/modeKinds.ts';
import { remember } from '../values/remember.ts';

/** Sets of numbers that are joined: who belongs together is answered by one of them. */
class Joined {
  private readonly parent: Int32Array;

  constructor(from: number | Int32Array) {
    this.parent =
      typeof from === 'number' ? Int32Array.from({ length: from }, (_, index) => index) : from.slice();
  }

  find(one: number): number {
    let root = one;
    while (this.parent[root] !== root) root = this.parent[root] ?? root;
    for (let at = one; at !== root;) {
      const next = this.parent[at] ?? root;
      this.parent[at] = root;
      at = next;
    }
    return root;
  }

  join(a: number, b: number): void {
    this.parent[this.find(a)] = this.find(b);
  }

  state(): Int32Array {
    return this.parent;
  }
}

export type Nets = Pick<Joined, 'find'>;

const isAlwaysClosed = ({ closedIn, unit }: Contact): boolean =>
  unit === undefined && MODE_KINDS.every((mode) => closedIn[mode] === 'closed');

/** The network with its terminals numbered and everything joined that never opens. */
export const indexed = remember((network: Network) => {
  const numberOf = new Map<string, number>();
  for (const { terminals } of network.ports) for (const { id } of terminals) numberOf.set(id, numberOf.size);
  const base = new Joined(numberOf.size);
  for (const { a, b } of network.conductors) {
    const [one, other] = [numberOf.get(a), numberOf.get(b)];
    if (one !== undefined && other !== undefined) base.join(one, other);
  }
  const switched: { readonly contact: Contact; readonly a: number; readonly b: number }[] = [];
  for (const contact of network.contacts) {
    const [a, b] = [numberOf.get(contact.a), numberOf.get(contact.b)];
    if (a === undefined || b === undefined) continue;
    if (isAlwaysClosed(contact)) base.join(a, b);
    else switched.push({ contact, a, b });
  }
  return { numberOf, switched, base: base.state() };
});

/** What belongs together when the given contacts are closed. */
export function netsWith(network: Network, isClosed: (contact: Contact) => boolean): Nets {
  const { switched, base } = indexed(network);
  const nets = new Joined(base);
  for (const { contact, a, b } of switched) if (isClosed(contact)) nets.join(a, b);
  return nets;
}
