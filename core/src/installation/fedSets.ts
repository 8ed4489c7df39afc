import type { Generator } from './facts.ts';
import type { ModeKind } from './modeKinds.ts';

const SCHOOLS = ['generator-port', 'transfer-switch'] as const;

type Connected = Pick<Generator, 'connection' | 'stackId'>;

/** Whether a generator that runs in a mode feeds a set. What feeds none of a kind leaves the set as it is without a generator. */
export const isFedIn = (kind: ModeKind, stackId: string, generators: readonly Connected[]): boolean =>
  !SCHOOLS.some((school) => school === kind) ||
  generators.some((one) => one.connection === kind && one.stackId === stackId);

/** The modes in which a generator runs for other sets: this one makes an island meanwhile, as when none runs. */
export const islandBesides = (stackId: string, generators: readonly Connected[]): readonly ModeKind[] =>
  SCHOOLS.filter(
    (school) =>
      generators.some(({ connection }) => connection === school) && !isFedIn(school, stackId, generators),
  );
