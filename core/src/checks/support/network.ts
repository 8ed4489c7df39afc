import type { Installation } from '../../installation/installation.ts';
import type { Network, Part } from '../../installation/network.ts';
import { type ModeFacts, walkOf } from '../../modes/walk.ts';
import { uniquePaths } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import { remember } from '../../values/remember.ts';
import { type CheckContext, unknownFinding } from '../check.ts';
import type { Finding, Found, Ref, Subject } from '../finding.ts';

export interface NetworkCase {
  readonly network: Network;
  readonly facts: ModeFacts;
}

const partsById = remember((network: Network) => new Map(network.parts.map((part) => [part.id, part])));

export const partOf = (network: Network, id: string): Part | undefined => partsById(network).get(id);

export const labelOf = (network: Network, id: string): string => partOf(network, id)?.label ?? id;

/** A way through the installation in words: "grid – grid isolator – unit 2 – Backup output". */
export const pathWords = (network: Network, path: readonly string[]): string =>
  path.map((id) => labelOf(network, id)).join(' – ');

/** Several things in words: "a and b", "a, b and c". */
export const listWords = (list: readonly string[]): string =>
  list.length < 2 ? list.join('') : `${list.slice(0, -1).join(', ')} and ${list.at(-1) ?? ''}`;

/** What else a finding about some parts is about: the sets, units and generators they belong to. */
export function refsOf(network: Network, partIds: readonly string[]): Ref[] {
  return partIds.flatMap((id): Ref[] => {
    const part = partOf(network, id);
    if (part === undefined) return [];
    return [
      { kind: 'part', id },
      ...(part.stackId === undefined ? [] : [{ kind: 'stack', id: part.stackId } as const]),
      ...(part.generatorId === undefined ? [] : [{ kind: 'generator', id: part.generatorId } as const]),
      ...(part.partitionId === undefined ? [] : [{ kind: 'partition', id: part.partitionId } as const]),
    ];
  });
}

/** A finding about one part, called by its label at the head of a sentence. */
export const partSubject = (network: Network, { id, label }: Part): Subject => ({
  kind: 'part',
  id,
  label: label.charAt(0).toUpperCase() + label.slice(1),
  about: refsOf(network, [id]),
});

export const WHOLE: Subject = { kind: 'design', id: 'network', label: 'The installation' };

/** Whether there is anything to back up: without inverters or generators there is nothing to walk. */
const isWorthWalking = ({ stacks, generators }: Installation): boolean =>
  stacks.length > 0 || generators.length > 0;

/** Generators that run in a mode without saying which set they feed: what holds then hangs on it. */
const unsaidIn = ({ generators }: Installation, { kind }: CheckContext['mode']): Path[] =>
  generators.flatMap(({ generator: { id, connection, stackId } }) =>
    connection === kind && stackId === undefined ? [['generators', id, 'stackId']] : [],
  );

/** Runs a measurement on the network as a mode has it; one `unknown` while the network is not known. */
export function onNetwork<Key extends string = never>(
  check: string,
  context: CheckContext,
  measure: (one: NetworkCase) => readonly Found<Key>[],
  /** False for what holds whichever set a generator feeds. */
  hangsOnFeed = true,
): Found<Key>[] {
  const { installation, mode } = context;
  if (!isWorthWalking(installation)) return [];
  const { network } = installation;
  const walk = walkOf(installation);
  if (!network.known || !walk.known)
    return [unknownFinding(check, context, WHOLE, '', network.known ? [] : network.missing)];
  const facts = walk.value.get(mode.id);
  if (facts === undefined) return [];
  const gaps = [...network.value.gaps, ...(hangsOnFeed ? unsaidIn(installation, mode) : [])];
  const findings = measure({ network: network.value, facts });
  // A piece that could not be laid may hold what was not met: what holds without it is not known to hold.
  return gaps.length === 0
    ? [...findings]
    : findings.map((finding) =>
        finding.state === 'within'
          ? unknownFinding(check, context, finding.subject, finding.unit, uniquePaths(gaps))
          : finding,
      );
}

/** How near a finding that is within lies to its limit: 1 on it. One without a margin tells by its figures, which of them may be the larger. */
function nearness({ margin, value, limit }: Finding): number {
  if (margin !== undefined) return 1 - margin;
  if (value === undefined || limit === undefined || value <= 0 || limit <= 0) return 0;
  return Math.min(value / limit, limit / value);
}

/** Of many alike only those that are in trouble are told one by one; where there is none, one finding says it of all. */
export function troubleOrOne<Key extends string = never>(
  findings: readonly Found<Key>[],
  all: Subject,
): readonly Found<Key>[] {
  const trouble = findings.filter(({ state }) => state !== 'within');
  const [first] = findings;
  if (trouble.length > 0 || first === undefined) return trouble;
  const nearest = findings.reduce((worst, one) => (nearness(one) > nearness(worst) ? one : worst), first);
  return [{ ...nearest, subject: all }];
}
