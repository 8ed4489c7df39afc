/** One cable between two sockets. */
export interface PlugLink {
  readonly fromId: string;
  readonly fromPort: string;
  readonly toId: string;
  readonly toPort: string;
}

/** How a bus is to be plugged: always from one socket to the other, as a line with two ends or closed to a ring. */
export interface PlugRule {
  readonly fromPort: string;
  readonly toPort: string;
  readonly shape: 'line' | 'ring';
}

/** What follows from the cables. */
export interface Plugged {
  /** What is wrong, each in words; empty where the bus is as it should be. */
  readonly reasons: readonly string[];
  /** The members in the order the bus passes them; undefined while it is not one line or ring. */
  readonly order: readonly string[] | undefined;
}

/** Follows the cables from one member to the next, each once. */
function walk(startId: string, next: ReadonlyMap<string, string>): string[] {
  const passed: string[] = [];
  const seen = new Set<string>();
  for (let at: string | undefined = startId; at !== undefined && !seen.has(at); at = next.get(at)) {
    seen.add(at);
    passed.push(at);
  }
  return passed;
}

const socketFaults = (link: PlugLink, rule: PlugRule, nameOf: (id: string) => string): string[] => [
  ...(link.fromPort === rule.fromPort
    ? []
    : [
        `the cable that leaves ${nameOf(link.fromId)} is in ${link.fromPort}, where ${rule.fromPort} is meant`,
      ]),
  ...(link.toPort === rule.toPort
    ? []
    : [`the cable into ${nameOf(link.toId)} is in ${link.toPort}, where ${rule.toPort} is meant`]),
];

const more = (ids: readonly string[]): string[] => [
  ...new Set(ids.filter((id, index) => ids.indexOf(id) !== index)),
];

/**
 * Holds cables against the rule of a bus: right sockets, no stars, every member reached, a line open and a ring closed.
 * Members are named by `nameOf`. The order is that of the cables, not of the list.
 */
export function followLinks(
  members: readonly string[],
  links: readonly PlugLink[],
  rule: PlugRule,
  nameOf: (id: string) => string,
): Plugged {
  const reasons = links.flatMap((link) => socketFaults(link, rule, nameOf));
  for (const id of more(links.map((link) => link.fromId)))
    reasons.push(`more than one cable leaves ${nameOf(id)}: a star, where one cable follows the other`);
  for (const id of more(links.map((link) => link.toId)))
    reasons.push(`more than one cable ends at ${nameOf(id)}`);
  const next = new Map(links.map((link) => [link.fromId, link.toId]));
  const entered = new Set(links.map((link) => link.toId));
  const heads = members.filter((id) => !entered.has(id));
  const isClosed = heads.length === 0 && members.length > 1;
  const order = walk(heads[0] ?? members[0] ?? '', next);
  if (rule.shape === 'line' && isClosed) reasons.push('the bus is closed to a ring, where a line is meant');
  if (rule.shape === 'ring' && !isClosed) reasons.push('the ring is not closed');
  const left = members.filter((id) => !order.includes(id));
  if (left.length > 0) reasons.push(`the bus does not reach ${left.map(nameOf).join(', ')}`);
  const isWhole = left.length === 0 && isClosed === (rule.shape === 'ring');
  return { reasons, order: isWhole ? order : undefined };
}
