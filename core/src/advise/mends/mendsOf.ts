import type { Analysis } from '../../checks/analyse.ts';
import { acceptanceOf } from '../../checks/accepted.ts';
import { type Cause, inSameCause } from '../../checks/causes.ts';
import { compareFindings, type State } from '../../checks/finding.ts';
import { checkById, type RegisteredFinding } from '../../checks/registry.ts';
import { findingsOf } from '../../checks/runChecks.ts';
import { sentenceOf } from '../../checks/sentence.ts';
import type { EquipmentType } from '../../catalogue/schema.ts';
import { diff, type Edit } from '../../design/edits.ts';
import type { Design } from '../../design/schema.ts';
import { compileWall } from '../../installation/place/wall.ts';
import { statedOf } from '../../installation/stated.ts';
import { candidatesFor } from './candidates.ts';
import type { Candidate, Trouble } from './candidate.ts';
import { contextsOf, countsOf, type Tried, triedOf } from './tried.ts';

/** What a mend comes to. */
export interface MendEffect {
  /** The worst of what the cause was about: 'within' where nothing of it is left. */
  readonly state: State;
  readonly message: string;
  /** Causes of the whole design afterwards. */
  readonly over: number;
  readonly unknown: number;
  readonly tight: number;
}

/** Edits that clear a cause, with what they come to. Nothing is changed until somebody takes it. */
export interface Mend {
  readonly id: string;
  readonly title: string;
  readonly edits: readonly Edit[];
  readonly after: MendEffect;
}

/** How many mends are worked out in full for one cause; what is only tight needs no choice. */
const KEPT = { over: 4, tight: 2, unknown: 0 };
const RANK: Record<State, number> = { within: 0, tight: 1, unknown: 2, over: 3 };

/** Checks that look at nothing but where things hang. */
const WALL_CHECKS: ReadonlySet<string> = new Set([
  'place.clearance',
  'place.exposure',
  'place.height',
  'place.overlap',
]);

const onlyPlaceDiffers = (a: Design, b: Design): boolean =>
  (Object.keys(b) as (keyof Design)[]).every((key) => key === 'place' || a[key] === b[key]);

/** The worst that is left of a cause in a changed design: only its own checks are run, in its own modes. */
function leftOf(
  { cause, analysis, catalogue, design: before }: Trouble,
  { design, contexts }: Tried,
): RegisteredFinding | undefined {
  const checks = [...new Set(cause.findings.map(({ check }) => check))];
  const isOfWall = checks.every((check) => WALL_CHECKS.has(check));
  const asked =
    isOfWall && onlyPlaceDiffers(before, design)
      ? contextsOf({ ...analysis.installation, place: design.place, wall: compileWall(design, catalogue) })
      : contexts();
  const left = asked
    .filter(({ mode }) => cause.modes.includes(mode.id))
    .flatMap((context) => checks.flatMap((check) => findingsOf(checkById(check), context)))
    .filter((finding) => finding.state !== 'within' && inSameCause(cause, finding));
  return left.sort(compareFindings)[0];
}

const isBetter = (cause: Cause, left: RegisteredFinding | undefined): boolean =>
  left === undefined || RANK[left.state] < RANK[cause.state];

/** A step of a candidate, tried. */
interface Step {
  readonly tried: Tried;
  readonly step: number;
}

/** The smallest step of a candidate that clears the cause. */
function clearing(trouble: Trouble, candidate: Candidate): Step | undefined {
  const made = (step: number): Step | undefined => {
    const next = candidate.make(trouble.design, step);
    if (next === undefined || next === trouble.design) return undefined;
    const tried = triedOf(trouble.analysis, next, trouble.catalogue);
    return isBetter(trouble.cause, leftOf(trouble, tried)) ? { tried, step } : undefined;
  };
  if (candidate.isRising === true) {
    let found = made(candidate.most);
    // Halved until the step below does not clear it.
    for (let low = 0; found !== undefined && found.step - low > 1;) {
      const middle = Math.floor((low + found.step) / 2);
      const less = made(middle);
      if (less === undefined) low = middle;
      else found = less;
    }
    return found;
  }
  for (let step = 1; step <= candidate.most; step += 1) {
    const found = made(step);
    if (found !== undefined) return found;
  }
  return undefined;
}

function effectOf({ cause }: Trouble, { after: worked }: Tried): MendEffect | undefined {
  const after = worked();
  if (after === undefined) return undefined;
  const { analysis, counts } = after;
  const checks = new Set<string>(cause.findings.map(({ check }) => check));
  const [left] = analysis.findings
    .filter(
      (finding) =>
        checks.has(finding.check) &&
        cause.modes.includes(finding.mode) &&
        finding.state !== 'within' &&
        inSameCause(cause, finding),
    )
    .sort(compareFindings);
  return {
    state: left?.state ?? 'within',
    message:
      left === undefined ? 'Within the limits entered.' : sentenceOf(statedOf(analysis.installation), left),
    ...counts,
  };
}

interface Helping extends Step {
  readonly after: MendEffect;
}

/** The smallest step of a candidate that clears the cause and leaves no more causes over than may be left. */
function helping(trouble: Trouble, candidate: Candidate, most: number): Helping | undefined {
  const judged = ({ tried, step }: Step): Helping | undefined => {
    const after = effectOf(trouble, tried);
    return after === undefined || after.over > most ? undefined : { tried, step, after };
  };
  const found = clearing(trouble, candidate);
  if (found === undefined) return undefined;
  const first = judged(found);
  if (first !== undefined || candidate.goesOn !== true) return first;
  // What just clears it may leave what followed from it: of more of the same, the least that clears that as well.
  const at = (step: number): Helping | undefined => {
    const design = candidate.make(trouble.design, step);
    return design === undefined
      ? undefined
      : judged({ tried: triedOf(trouble.analysis, design, trouble.catalogue), step });
  };
  let best = candidate.most > found.step ? at(candidate.most) : undefined;
  for (let low = found.step; best !== undefined && best.step - low > 1;) {
    const middle = Math.floor((low + best.step) / 2);
    const less = at(middle);
    if (less === undefined) low = middle;
    else best = less;
  }
  return best;
}

function troubleOf(cause: Cause, analysis: Analysis, catalogue: readonly EquipmentType[]): Trouble {
  const { subject } = cause.worst;
  const stackId =
    subject.kind === 'stack' || subject.kind === 'bank'
      ? subject.id
      : subject.about?.find(({ kind }) => kind === 'stack')?.id;
  const ofGenerator = analysis.installation.generators.find(({ generator }) =>
    [subject.id, ...(subject.about ?? []).map(({ id }) => id)].includes(generator.id),
  )?.generator.stackId;
  const { stacks } = analysis.installation;
  return {
    cause,
    analysis,
    design: analysis.design,
    catalogue,
    compiled:
      stacks.find(({ stack }) => stack.id === (stackId ?? ofGenerator)) ??
      (stacks.length === 1 ? stacks[0] : undefined),
  };
}

/**
 * What would clear a cause: each a list of edits, tried on the design, with what it comes to. A mend that brings more causes over than it
 * clears is left out. Accepted causes and open questions have none.
 */
export function mendsOf(
  cause: Cause,
  analysis: Analysis,
  catalogue: readonly EquipmentType[],
): readonly Mend[] {
  if (cause.state === 'unknown' || acceptanceOf(analysis.installation, cause.worst) !== undefined) return [];
  const trouble = troubleOf(cause, analysis, catalogue);
  const before = countsOf(analysis).over;
  const mends: Mend[] = [];
  for (const candidate of candidatesFor(trouble)) {
    if (mends.length >= KEPT[cause.state]) break;
    const helps = helping(trouble, candidate, before - (cause.state === 'over' ? 1 : 0));
    if (helps === undefined) continue;
    mends.push({
      id: candidate.id,
      title: candidate.title(helps.step),
      edits: diff(analysis.design, helps.tried.design),
      after: helps.after,
    });
  }
  // What changes least comes first; of those what leaves least.
  return mends.sort((a, b) => a.edits.length - b.edits.length || a.after.over - b.after.over);
}

/** Causes that no edit of the design clears: the building, the site or the customer decides. */
export const CUSTOMER: ReadonlySet<string> = new Set([
  'bank.autonomy',
  'bank.cold-charge',
  'bonding.earth-point',
  'bonding.electrode',
  'grid.service',
  'load.interruption',
  'load.must-run',
  'place.clearance',
  'place.delivery',
  'place.exposure',
  'place.fixing',
  'place.front',
  'place.height',
  'place.load',
  'place.overlap',
  'place.tilt',
  'pv.ac-coupled',
  'pv.rapid-shutdown',
  'pv.storage',
  'stack.unit-loss',
]);

/** What a load asks for: where no change of the set carries it, the customer gives something up. */
const OF_LOAD = /^(load|surge)\./;

/** Who has to decide: the designer where an edit clears it, else the customer where it is about building, site or wishes. */
export const decidesOn = (cause: Cause, mends: readonly Mend[]): 'design' | 'customer' =>
  mends.length === 0 && (CUSTOMER.has(cause.worst.check) || OF_LOAD.test(cause.worst.check))
    ? 'customer'
    : 'design';
