import { circuitVa } from '../figures/loads/circuitVa.ts';
import { findingsOf } from '../checks/runChecks.ts';
import { concerns } from '../checks/finding.ts';
import { modesOf } from '../modes/modes.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { type Check } from '../checks/check.ts';
import { CHECKS, type RegisteredFinding } from '../checks/registry.ts';
import { sentenceOf } from '../checks/sentence.ts';
import { analyse } from '../checks/analyse.ts';
import { compile } from '../installation/compile.ts';
import { diff } from '../design/edits.ts';
import type { Circuit, Design, Partition, Stack } from '../design/schema.ts';
import { counted } from '../words/quantity.ts';
import type { Progress } from './balance/problem.ts';
import { figuresOf } from './figures.ts';
import { importanceOf, RANK } from '../figures/loads/importance.ts';
import { circuitPart, makeProposal } from './makeProposal.ts';
import type { Advice, ProposalPart } from './proposal.ts';
import { withDelays } from './stagger.ts';

/** What a backed-up set must keep to: continuous, surge, autonomy and pass-through limits on every line. */
const LIMITS: ReadonlySet<string> = new Set([
  'balance.neutral',
  'bank.autonomy',
  'bank.current-minimum',
  'bank.current-nominal',
  'bank.surge-current',
  'grid.pass-through',
  'grid.port',
  'load.continuous',
  'load.output',
  'load.power',
  'load.total',
  'surge.cold-pickup',
  'surge.largest-start',
  'surge.staggered',
]);
const PICKUP: ReadonlySet<string> = new Set(['surge.cold-pickup', 'surge.staggered']);
const LIMIT_CHECKS: readonly Check[] = CHECKS.filter((check) => LIMITS.has(check.id));
/** What is not known comes first: it cannot be what overfills the output. */
const peakVa = (circuit: Circuit): number => circuitVa(circuit) ?? 0;

/** The first limit a design breaks, on grid or in island; undefined while all hold as far as known. */
function brokenLimit(
  design: Design,
  catalogue: readonly EquipmentType[],
  stackId: string,
): RegisteredFinding | undefined {
  const installation = compile(design, catalogue);
  for (const mode of modesOf(installation)) {
    if (mode.kind !== 'island' && mode.kind !== 'on-grid') continue;
    const context = { installation, mode };
    for (const check of LIMIT_CHECKS) {
      const over = findingsOf(check, context).find(
        (finding) => finding.state === 'over' && concerns(finding.subject, { kind: 'stack', id: stackId }),
      );
      if (over !== undefined) return over;
    }
  }
  return undefined;
}

const place = (design: Design, circuitId: string, partitionId: string): Design => ({
  ...design,
  circuits: design.circuits.map((circuit) =>
    circuit.id === circuitId ? { ...circuit, partitionId } : circuit,
  ),
});

/** Where circuits go that are not carried: the grid side there is, or a new one. */
function withGridSide(design: Design): { design: Design; grid: Partition } {
  const found = design.partitions.find((partition) => partition.kind === 'grid');
  if (found !== undefined) return { design, grid: found };
  let id = 'p-grid';
  for (let n = 2; design.partitions.some((partition) => partition.id === id); n += 1) id = `p-grid-${n}`;
  const grid: Partition = { id, name: 'Grid side', kind: 'grid' };
  return { design: { ...design, partitions: [...design.partitions, grid] }, grid };
}

interface Chosen {
  readonly design: Design;
  readonly carried: readonly Circuit[];
  readonly stopped: readonly { readonly circuit: Circuit; readonly by: RegisteredFinding }[];
}

/**
 * Takes circuits in order of importance, the smaller first, and keeps each that leaves every limit standing: as it is, or
 * with start delays where only the pickup after a break would be too much.
 */
function choose(
  start: Design,
  candidates: readonly Circuit[],
  backup: Partition,
  catalogue: readonly EquipmentType[],
  onProgress: Progress,
): Chosen {
  let design = start;
  const carried: Circuit[] = [];
  const stopped: { circuit: Circuit; by: RegisteredFinding }[] = [];
  candidates.forEach((circuit, index) => {
    onProgress(index / candidates.length);
    const home = circuit.partitionId;
    const kept = start.partitions.find((one) => one.id === home);
    const target =
      kept?.stackId === backup.stackId && kept?.kind !== 'grid' && home !== undefined ? home : backup.id;
    const tried = place(design, circuit.id, target);
    const stackId = backup.stackId ?? '';
    const by = brokenLimit(tried, catalogue, stackId);
    // A pickup that is too much can be mended by delays; any other limit cannot.
    const mended =
      by !== undefined && PICKUP.has(by.check) ? withDelays(tried, catalogue, stackId) : undefined;
    const fits =
      by === undefined
        ? tried
        : mended !== undefined && brokenLimit(mended, catalogue, stackId) === undefined
          ? mended
          : undefined;
    if (fits !== undefined) {
      design = fits;
      carried.push(circuit);
    } else if (by !== undefined) stopped.push({ circuit, by });
  });
  return { design, carried, stopped };
}

/** What changes about a circuit, in words; undefined where nothing does. */
function changeLabel(design: Design, before: Circuit, after: Circuit): string | undefined {
  const name = (id: string | undefined): string =>
    design.partitions.find((one) => one.id === id)?.name ?? 'no partition';
  const changes = [
    ...(before.partitionId === after.partitionId
      ? []
      : [`${name(before.partitionId)} to ${name(after.partitionId)}`]),
    ...((before.startDelayS ?? 0) === (after.startDelayS ?? 0)
      ? []
      : [`closed after ${String(after.startDelayS ?? 0)} s`]),
  ];
  return changes.length === 0 ? undefined : `${after.name}: ${changes.join(', ')}`;
}

/** The circuits that a stack may carry, in the order they are tried: by importance, the smaller first. */
function candidatesOf(mine: readonly Circuit[]): Circuit[] {
  const rank = (circuit: Circuit): number => RANK[importanceOf(circuit) ?? 'could'];
  return mine
    .filter((circuit) => {
      const importance = importanceOf(circuit);
      return importance !== undefined && importance !== 'leave-off';
    })
    .sort((a, b) => rank(a) - rank(b) || peakVa(a) - peakVa(b) || a.id.localeCompare(b.id));
}

/** Circuits of nobody else: what other stacks feed stays with them. */
function circuitsFor(design: Design, stackId: string): Circuit[] {
  const others = new Set(
    design.partitions
      .filter((one) => one.stackId !== undefined && one.stackId !== stackId)
      .map((one) => one.id),
  );
  return design.circuits.filter((circuit) => !others.has(circuit.partitionId ?? ''));
}

function chosenLines(chosen: Chosen, candidates: number, undecided: readonly Circuit[]): string[] {
  const named = undecided
    .slice(0, 3)
    .map((one) => one.name)
    .join(', ');
  return [
    `${counted(chosen.carried.length, 'circuit')} of ${candidates} that matter can be carried, taken by importance and the smaller first.`,
    ...(chosen.stopped.length === 0 ? ['Nothing that matters has to stay behind.'] : []),
    ...chosen.stopped.map(
      ({ circuit, by }) => `${circuit.name} is stopped by: ${sentenceOf(chosen.design, by)}`,
    ),
    ...(undecided.length > 0
      ? [`${counted(undecided.length, 'circuit')} without importance stay where they are: ${named}.`]
      : []),
  ];
}

/** What one stack can carry; only notes where that is what it carries now. */
function forStack(
  design: Design,
  stack: Stack,
  catalogue: readonly EquipmentType[],
  onProgress: Progress,
): Pick<Advice, 'proposals' | 'notes'> {
  const backup = design.partitions.find((one) => one.kind === 'backup' && one.stackId === stack.id);
  if (backup === undefined)
    return { proposals: [], notes: [`${stack.name}: no backup output is fed by it yet.`] };
  const mine = circuitsFor(design, stack.id);
  const undecided = mine.filter((circuit) => importanceOf(circuit) === undefined);
  const candidates = candidatesOf(mine);
  const { design: withGrid, grid } = withGridSide(design);
  const toDark = new Set(mine.filter((circuit) => !undecided.includes(circuit)).map((circuit) => circuit.id));
  const start: Design = {
    ...withGrid,
    circuits: withGrid.circuits.map((circuit) =>
      toDark.has(circuit.id) ? { ...circuit, partitionId: grid.id } : circuit,
    ),
  };
  const originals = new Map(design.circuits.map((circuit) => [circuit.id, circuit]));
  const chosen = choose(start, candidates, backup, catalogue, onProgress);
  const after = chosen.design;
  const parts = after.circuits.flatMap((circuit): ProposalPart[] => {
    const before = originals.get(circuit.id);
    const label = before && changeLabel(after, before, circuit);
    return before === undefined || label === undefined
      ? []
      : [circuitPart(withGrid, before, label, () => circuit)];
  });
  if (withGrid !== design)
    parts.unshift({ id: 'grid-side', label: `Add ${grid.name}`, edits: diff(design, withGrid) });
  const notes = chosenLines(chosen, candidates.length, undecided);
  if (parts.length === 0)
    return {
      proposals: [],
      notes: [
        `${stack.name}: the set that is backed up now is already what importance and limits allow.`,
        ...notes,
      ],
    };
  const before = figuresOf(analyse(design, catalogue));
  const title = `${stack.name}: ${counted(parts.length, 'circuit')} change place`;
  const change = { design, after, parts, notes, before };
  return {
    proposals: [makeProposal('partition', `partition-${stack.id}`, title, change, catalogue)],
    notes: [],
  };
}

/** Which circuits a stack can carry, by importance, under all limits; says which limit stops each that it cannot. */
export function advisePartition(
  design: Design,
  catalogue: readonly EquipmentType[],
  onProgress: Progress = () => undefined,
): Advice {
  const each = design.stacks.map((stack) => forStack(design, stack, catalogue, onProgress));
  onProgress(1);
  return {
    kind: 'partition',
    proposals: each.flatMap((one) => one.proposals),
    notes:
      design.stacks.length === 0
        ? ['There is no stack yet that could carry anything.']
        : each.flatMap((one) => one.notes),
  };
}
