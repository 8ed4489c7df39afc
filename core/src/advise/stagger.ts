import { islandBoard } from '../figures/loads/boards.ts';
import { analyse } from '../checks/analyse.ts';
import type { InverterType } from '../catalogue/inverterType.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { type Board, compileBoard } from '../figures/loads/board.ts';
import { type Capability, capabilityWithout } from '../figures/capability/capability.ts';
import { compile } from '../installation/compile.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { Supply } from '../installation/supply.ts';
import type { Circuit, Design, Importance } from '../design/schema.ts';
import { worstLevel } from '../network/overload.ts';
import {
  type DelayedLoad,
  seeLine,
  seeWhole,
  staggeredPickup,
  type StartingItem,
  type SurgeStep,
} from '../figures/loads/surges.ts';
import { add, type Complex, ZERO } from '../network/complex.ts';
import { counted, formatNumber, formatQuantity } from '../words/quantity.ts';
import { figuresOf } from './figures.ts';
import { circuitPart, makeProposal } from './makeProposal.ts';
import { importanceOf } from '../figures/loads/importance.ts';
import type { Advice, Proposal } from './proposal.ts';

/** Delays are proposed in steps that a timer relay can be set to and an ear can tell apart. */
const SLOT_S = 5;
/** Later than this nobody waits for. */
const LAST_SLOT_S = 300;
const RANK: Record<Importance, number> = { must: 0, should: 1, could: 2, 'leave-off': 3 };

interface Place {
  readonly installation: Installation;
  readonly compiled: CompiledStack;
  readonly type: InverterType;
  readonly supply: Supply;
  readonly capability: Capability;
}

/** Smallest room that an envelope leaves below the overload curve: allowed/needed VA − 1; below 0 when over. */
function room(place: Place, envelope: readonly SurgeStep[], ratedVa: number): number {
  const worst = worstLevel(envelope, place.type.overloadCurve, ratedVa);
  if (worst === undefined || worst.va === 0) return Infinity;
  return worst.allowedVa / worst.va - 1;
}

/** What circuits bring to the pickup of a set: their expected peak by line, what starts, and what is dark until its moment. */
interface Load {
  readonly lines: readonly Complex[];
  readonly starts: readonly StartingItem[];
  readonly delayed: readonly DelayedLoad[];
}

function loadOf(place: Place, circuits: readonly Circuit[]): Load {
  const board = compileBoard(circuits, place.supply, {
    electronicThirdHarmonic: place.installation.defaults.electronicThirdHarmonic.value,
  });
  return {
    lines: board.expected.knownPart,
    starts: board.startingItems,
    delayed: board.delayedLoads,
  };
}

const joined = (a: Load, b: Load): Load => ({
  lines: a.lines.map((line, at) => add(line, b.lines[at] ?? ZERO)),
  starts: [...a.starts, ...b.starts],
  delayed: [...a.delayed, ...b.delayed],
});

/** When the last start of a load is over, s: from then on nothing changes by itself. */
const quietFromS = ({ starts, delayed: dark }: Load): number =>
  Math.max(
    0,
    ...dark.map(({ delayS }) => delayS),
    ...starts.map(({ delayS, steps }) => steps.reduce((sum, { durationS }) => sum + durationS, delayS)),
  );

/** Whether a share of what is allowed stays free on every line, and on the whole where the set shares among its lines. */
function hasRoom(place: Place, load: Load, margin: number): boolean {
  const { lines } = load;
  // Room of m below what is allowed means needed · (1 + …) = allowed: margin = 1 − needed/allowed.
  const isFree = (envelope: readonly SurgeStep[], ratedVa: number): boolean =>
    1 - 1 / (room(place, envelope, ratedVa) + 1) >= margin;
  const { perLineVa, totalVa } = place.capability;
  return (
    lines.every((total, line) =>
      isFree(staggeredPickup([load], total, seeLine(line)), perLineVa[line] ?? 0),
    ) &&
    (place.compiled.stack.arrangement !== 'split-phase-autotransformer' ||
      isFree(staggeredPickup([load], lines.reduce(add, ZERO), seeWhole), totalVa))
  );
}

function delayed(circuit: Circuit, startDelayS: number): Circuit {
  // The same object where nothing changes: what is known of it need not be worked out again.
  if ((circuit.startDelayS ?? 0) === startDelayS) return circuit;
  const { startDelayS: _before, ...rest } = circuit;
  return startDelayS > 0 ? { ...rest, startDelayS } : rest;
}

interface Plan {
  readonly placed: readonly Circuit[];
  readonly refused: readonly Circuit[];
}

interface Wanted {
  /** Share of what is allowed that stays free. */
  readonly margin: number;
  /** A plan that leaves one circuit behind is of no use: it is given up at the first. */
  readonly ofAll: boolean;
}

/** Gives each starting circuit, in order, the earliest delay that leaves the wanted room with all that came before it. */
function plan(
  place: Place,
  steady: readonly Circuit[],
  starting: readonly Circuit[],
  { margin, ofAll }: Wanted,
): Plan {
  let placed: Circuit[] = [...steady];
  let load = loadOf(place, steady);
  const refused: Circuit[] = [];
  for (const circuit of starting) {
    let found: Circuit | undefined;
    const quietS = quietFromS(load);
    for (let slotS = 0; slotS <= LAST_SLOT_S && found === undefined; slotS += SLOT_S) {
      const tried = delayed(circuit, slotS);
      const withIt = joined(load, loadOf(place, [tried]));
      if (hasRoom(place, withIt, margin)) {
        found = tried;
        load = withIt;
      } else if (slotS >= quietS) {
        // All else is quiet by then: it would be no other any later.
        break;
      }
    }
    if (found === undefined) {
      refused.push(circuit);
      if (ofAll) break;
    } else placed = [...placed, found];
  }
  return { placed, refused };
}

function startVa(board: Board, circuit: Circuit): number {
  return board.startingItems
    .filter(({ running }) => running.circuit.id === circuit.id)
    .reduce(
      (sum, { running, steps }) =>
        sum + running.quantity * running.oneVa * Math.max(0, ...steps.map((step) => step.multiple)),
      0,
    );
}

/** Tries two orders, by importance and by size, and keeps the one that leaves less behind and is done sooner. */
function bestPlan(place: Place, board: Board, wanted: Wanted): Plan {
  const startsHere = new Set(board.startingItems.map(({ running }) => running.circuit.id));
  const steady = board.circuits
    .filter((circuit) => !startsHere.has(circuit.id))
    .map((one) => delayed(one, 0));
  const starting = board.circuits.filter((circuit) => startsHere.has(circuit.id));
  const size = new Map(starting.map((circuit) => [circuit.id, startVa(board, circuit)]));
  const bySize = (a: Circuit, b: Circuit): number =>
    (size.get(b.id) ?? 0) - (size.get(a.id) ?? 0) || a.id.localeCompare(b.id);
  const rank = (circuit: Circuit): number => RANK[importanceOf(circuit) ?? 'could'];
  const plans = [
    [...starting].sort((a, b) => rank(a) - rank(b) || bySize(a, b)),
    [...starting].sort(bySize),
  ].map((order) => plan(place, steady, order, wanted));
  const last = (one: Plan): number => Math.max(0, ...one.placed.map((circuit) => circuit.startDelayS ?? 0));
  const [first = { placed: [], refused: [] }, second = first] = plans;
  if (first.refused.length !== second.refused.length)
    return first.refused.length < second.refused.length ? first : second;
  return last(second) < last(first) ? second : first;
}

/** The place of a stack as far as it must be known to stagger its starts. */
function placeOf(
  installation: Installation,
  compiled: CompiledStack,
): (Place & { board: Board }) | undefined {
  const capability = capabilityWithout(compiled);
  const board = islandBoard(compiled);
  if (!installation.supply.known || !compiled.type.known || !board.known || !capability.known)
    return undefined;
  return {
    installation,
    compiled,
    type: compiled.type.value,
    supply: installation.supply.value,
    capability: capability.value,
    board: board.value,
  };
}

const withDelaysOf = (design: Design, placed: readonly Circuit[]): Design => {
  const delays = new Map(placed.map((circuit) => [circuit.id, circuit.startDelayS ?? 0]));
  return {
    ...design,
    circuits: design.circuits.map((circuit) =>
      delays.has(circuit.id) ? delayed(circuit, delays.get(circuit.id) ?? 0) : circuit,
    ),
  };
};

/** The design with the delays its stack needs; undefined where no delays are enough, or something is not known. */
export function withDelays(
  design: Design,
  catalogue: readonly EquipmentType[],
  stackId: string,
): Design | undefined {
  const installation = compile(design, catalogue);
  const compiled = installation.stacks.find((one) => one.stack.id === stackId);
  const place = compiled === undefined ? undefined : placeOf(installation, compiled);
  if (place === undefined) return undefined;
  const margin = installation.defaults.staggerMargin.value;
  const { placed, refused } = bestPlan(place, place.board, { margin, ofAll: true });
  return refused.length > 0 ? undefined : withDelaysOf(design, placed);
}

function proposalFor(
  place: Place,
  board: Board,
  design: Design,
  catalogue: readonly EquipmentType[],
): Proposal | string {
  const { compiled, installation } = place;
  const margin = installation.defaults.staggerMargin.value;
  const { placed, refused } = bestPlan(place, board, { margin, ofAll: false });
  const delays = new Map(placed.map((circuit) => [circuit.id, circuit.startDelayS ?? 0]));
  const changed = board.circuits.filter(
    (circuit) => delays.has(circuit.id) && (circuit.startDelayS ?? 0) !== delays.get(circuit.id),
  );
  const refusedNote = refused.map(
    (circuit) =>
      `${circuit.name} finds no moment up to ${LAST_SLOT_S} s that leaves ${formatQuantity(margin, 'fraction')}: shed it, or start it by hand when less is running.`,
  );
  if (changed.length === 0)
    return [
      `${compiled.stack.name}: no delay is needed for ${formatQuantity(margin, 'fraction')} of headroom.`,
      ...refusedNote,
    ].join(' ');
  const after = withDelaysOf(design, placed);
  const parts = changed.map((circuit) =>
    circuitPart(
      design,
      circuit,
      `${circuit.name}: ${formatNumber(circuit.startDelayS ?? 0)} s to ${formatNumber(delays.get(circuit.id) ?? 0)} s`,
      (one) => delayed(one, delays.get(one.id) ?? 0),
    ),
  );
  const order = [...placed]
    .filter((circuit) => (circuit.startDelayS ?? 0) > 0)
    .sort((a, b) => (a.startDelayS ?? 0) - (b.startDelayS ?? 0))
    .map((circuit) => `${circuit.name} at ${formatNumber(circuit.startDelayS ?? 0)} s`);
  return makeProposal(
    'stagger',
    `stagger-${compiled.stack.id}`,
    `${compiled.stack.name}: ${counted(changed.length, 'delay')}`,
    {
      design,
      after,
      parts,
      notes: [
        `Order after supply returns: everything else at once, then ${order.join(', ')}.`,
        `Every line keeps at least ${formatQuantity(margin, 'fraction')} to the overload curve while it comes up.`,
        'Each delay needs a timer or a staged contactor on its circuit; the islanding test measures them.',
        ...refusedNote,
      ],
      before: figuresOf(analyse(design, catalogue)),
    },
    catalogue,
  );
}

/** Start delays and order after a break, so that the overload curve is kept with the stated margin on every line. */
export function adviseStagger(design: Design, catalogue: readonly EquipmentType[]): Advice {
  const analysis = analyse(design, catalogue);
  const { installation } = analysis;
  const notes: string[] = [];
  const proposals: Proposal[] = [];
  for (const compiled of installation.stacks) {
    const place = placeOf(installation, compiled);
    if (place === undefined) {
      notes.push(
        `${compiled.stack.name}: what it can carry is not known yet, so no delay can be worked out.`,
      );
      continue;
    }
    if (place.board.staggered.missing.length > 0)
      notes.push(`${compiled.stack.name}: some starts are not known and are not in the proposal.`);
    const found = proposalFor(place, place.board, design, catalogue);
    if (typeof found === 'string') notes.push(found);
    else proposals.push(found);
  }
  if (installation.stacks.length === 0) notes.push('There is no stack yet that could start anything.');
  return { kind: 'stagger', proposals, notes };
}
