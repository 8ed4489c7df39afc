import { groupBy } from '../../values/groupBy.ts';
import type { Network, NetworkProblem } from '../network.ts';

/**
 * What cannot be as it is written: a socket or terminal that is not there, a part joined to itself, more conductors on a terminal
 * than its type takes, a board in an island without a source. Each is a sentence with its place.
 */
export function problemsOf(network: Omit<Network, 'problems'>): NetworkProblem[] {
  const problems: NetworkProblem[] = [];
  const partIds = new Set(network.parts.map(({ id }) => id));
  for (const { a, b, from } of network.links) {
    for (const end of [a, b])
      if (!partIds.has(end.partId))
        problems.push({ path: from, message: 'leads to a part that is not there' });
    if (a.partId === b.partId) problems.push({ path: from, message: 'joins a part to itself' });
  }
  const onPort = new Map<string, number>();
  for (const { a, b } of network.runs) for (const id of [a, b]) onPort.set(id, (onPort.get(id) ?? 0) + 1);
  const labels = new Map(network.parts.map(({ id, label }) => [id, label]));
  for (const port of network.ports) {
    const most = port.takes.known ? port.takes.value.mostConductors : undefined;
    const count = onPort.get(port.id) ?? 0;
    if (most !== undefined && count > most)
      problems.push({
        path: network.runs.find(({ a, b }) => a === port.id || b === port.id)?.from ?? [],
        message: `brings ${count} conductors onto one terminal of ${labels.get(port.partId) ?? port.partId}, whose type takes ${most}`,
      });
  }
  return [...problems, ...apart(network)];
}

/** Boards that no conductor joins to anything that could feed them, in any position of any switch: an island of its own. */
function apart({ parts, ports, runs, sources }: Omit<Network, 'problems'>): NetworkProblem[] {
  const partOf = new Map(ports.map(({ id, partId }) => [id, partId]));
  const beside = groupBy(
    runs
      .filter(({ use }) => use !== 'earth')
      .flatMap(({ a, b }) => [
        { from: partOf.get(a) ?? '', to: partOf.get(b) ?? '' },
        { from: partOf.get(b) ?? '', to: partOf.get(a) ?? '' },
      ]),
    ({ from }) => from,
  );
  const reached = new Set(sources.map(({ partId }) => partId));
  for (const id of reached) for (const { to } of beside.get(id) ?? []) reached.add(to);
  return parts
    .filter(({ kind, id }) => kind === 'board' && !reached.has(id))
    .map(({ from, label }) => ({
      path: from,
      message: `nothing that could feed ${label} is joined to it`,
    }));
}
