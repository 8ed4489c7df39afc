import { z } from 'zod';
import { next, chanceOf } from '../rehearse/chance.ts';
import { explainFault } from './explainFault.ts';
import {
  INSTRUMENT_KINDS,
  INSTRUMENTS,
  type InstrumentKind,
  measure,
  type MeasuringPlace,
  measuringPlaces,
  type Shown,
} from './instruments.ts';
import { mendFault, plantFault, REVERSED } from './siteCommands.ts';
import {
  FAULT_KIND_LIST,
  FAULT_KINDS,
  faultId,
  type FaultKind,
  type PossibleFault,
  possibleFaults,
  siteFault,
  type SiteFault,
} from './siteFaults.ts';
import type { SitePlan } from './siteTypes.ts';
import { putRight, type SiteState } from './siteState.ts';

/** How an exercise is asked for: a kind of fault, or chance with how hard it may be. */
export const exerciseAsk = z.strictObject({
  kind: z.enum(FAULT_KIND_LIST as [FaultKind, ...FaultKind[]]).optional(),
  difficulty: z.union([z.literal(1), z.literal(2), z.literal(3)]).optional(),
});
export type ExerciseAsk = z.infer<typeof exerciseAsk>;

/** What an apprentice does besides switching: measure, prove the tester, work on a place, say what is wrong. */
export const exerciseAct = z.discriminatedUnion('act', [
  z.strictObject({
    act: z.literal('measure'),
    placeId: z.string().min(1).max(200),
    instrument: z.enum(INSTRUMENT_KINDS as [InstrumentKind, ...InstrumentKind[]]),
    range: z.number().positive(),
  }),
  z.strictObject({ act: z.literal('prove-tester') }),
  z.strictObject({ act: z.literal('answer'), fault: siteFault }),
  z.strictObject({ act: z.literal('give-up') }),
]);
export type ExerciseAct = z.infer<typeof exerciseAct>;

export interface ExerciseLine {
  readonly atS: number;
  readonly words: string;
  readonly worth: 'needed' | 'extra' | 'dangerous' | 'wrong' | 'noted';
}

/** An exercise as it stands. The fault is known to the program alone until it is over. */
export interface Exercise {
  readonly fault: PossibleFault;
  readonly lines: ExerciseLine[];
  isTesterProven: boolean;
  /** Places proven dead since anything was last switched, by id. */
  provenDead: string[];
  result: ExerciseResult | undefined;
}

export interface ExerciseResult {
  readonly isFound: boolean;
  /** 0 to 100. */
  readonly score: number;
  readonly verdict: string;
  readonly why: readonly string[];
}

/** Places that tell of a fault of a kind, by the beginning of their id, with the instruments that do. */
const TELLS: Readonly<
  Record<FaultKind, readonly { readonly place: string; readonly with: InstrumentKind }[]>
> = {
  'unit-dropped': [
    { place: 'display:', with: 'display' },
    { place: 'output:', with: 'ac-clamp' },
  ],
  'comms-lead-pulled': [
    { place: 'display:', with: 'display' },
    { place: 'link:', with: 'dc-voltmeter' },
  ],
  'setting-forgotten': [{ place: 'display:', with: 'display' }],
  'address-doubled': [{ place: 'display:', with: 'display' }],
  'firmware-missed': [{ place: 'display:', with: 'display' }],
  'sensor-turned': [{ place: 'meter:', with: 'display' }],
  'polarity-swapped': [
    { place: 'module:', with: 'dc-voltmeter' },
    { place: 'string:', with: 'dc-voltmeter' },
  ],
  'module-aged': [
    { place: 'lead:', with: 'dc-clamp' },
    { place: 'lead:', with: 'tape' },
    { place: 'joint:', with: 'dc-voltmeter' },
    { place: 'module:', with: 'dc-voltmeter' },
  ],
  'lead-lengthened': [
    { place: 'lead:', with: 'dc-clamp' },
    { place: 'lead:', with: 'tape' },
  ],
  'terminal-weak': [
    { place: 'lead:', with: 'dc-clamp' },
    { place: 'joint:', with: 'dc-voltmeter' },
  ],
};

/** Faults whose mending means hands on DC terminals: the cable there is proven dead first. */
const BARE_HANDS: ReadonlySet<FaultKind> = new Set([
  'polarity-swapped',
  'module-aged',
  'lead-lengthened',
  'terminal-weak',
]);

const COST = { extra: 4, dangerous: 25, wrong: 20 } as const;
/** So many measurements that tell nothing of the fault are looking around. */
const FREE_EXTRA = 3;

/** Chooses a fault, plants it in a site whose design is put right otherwise, and opens the exercise; a sentence where nothing fits. */
export function openExercise(
  plan: SitePlan,
  state: SiteState,
  { kind, difficulty }: ExerciseAsk,
): Exercise | string {
  const fitting = possibleFaults(plan).filter(
    (one) =>
      (kind === undefined || one.kind === kind) &&
      (difficulty === undefined || FAULT_KINDS[one.kind].difficulty <= difficulty),
  );
  const kinds = [...new Set(fitting.map((one) => one.kind))];
  const chance = chanceOf(state.seed, 1);
  // First the kind, then the place: what an installation has many of is no likelier for that.
  const chosen = kinds[Math.floor(next(chance) * kinds.length)];
  const places = fitting.filter((one) => one.kind === chosen);
  const fault = places[Math.floor(next(chance) * places.length)];
  if (fault === undefined) return 'This installation cannot have a fault of that kind.';
  putRight(plan, state);
  plantFault(plan, state, { kind: fault.kind, at: fault.at });
  return { fault, lines: [], isTesterProven: false, provenDead: [], result: undefined };
}

function note(exercise: Exercise, state: SiteState, words: string, worth: ExerciseLine['worth']): void {
  exercise.lines.push({ atS: state.timeS, words, worth });
}

/** Something was switched: what was proven dead is so no longer. */
export function afterSwitching(plan: SitePlan, state: SiteState, exercise: Exercise): void {
  exercise.provenDead = [];
  const burnt = state.events.findLast(({ sentence }) => sentence.startsWith(REVERSED));
  if (burnt === undefined || exercise.result !== undefined) return;
  note(exercise, state, burnt.sentence, 'dangerous');
  end(exercise, plan, false, 0, 'The bank was joined without a look at its polarity. The exercise is over.');
}

function end(exercise: Exercise, plan: SitePlan, isFound: boolean, score: number, verdict: string): void {
  exercise.result = {
    isFound,
    score,
    verdict,
    why: explainFault(plan, exercise.fault),
  };
}

function takeReading(
  plan: SitePlan,
  state: SiteState,
  exercise: Exercise,
  { placeId, instrument, range }: Extract<ExerciseAct, { act: 'measure' }>,
): Shown | string {
  const place: MeasuringPlace | undefined = measuringPlaces(plan).find(({ id }) => id === placeId);
  if (place === undefined) return 'There is no such place.';
  const ranges: readonly number[] = INSTRUMENTS[instrument].ranges;
  if (!ranges.includes(range)) return 'That instrument has no such range.';
  const shown = measure(plan, state, place, instrument, range);
  const words = `${INSTRUMENTS[instrument].words} at ${place.words}: ${shown.text}`;
  if (shown.danger !== undefined) {
    note(exercise, state, `${words}. ${shown.danger}`, 'dangerous');
    return shown;
  }
  if (instrument === 'tester') {
    if (exercise.isTesterProven && shown.text === 'No voltage')
      exercise.provenDead = [...exercise.provenDead, placeId];
    note(
      exercise,
      state,
      exercise.isTesterProven ? words : `${words}. The tester was not proven before: it proves nothing.`,
      'noted',
    );
    exercise.isTesterProven = false;
    return shown;
  }
  const tells = TELLS[exercise.fault.kind].some(
    (one) => placeId.startsWith(one.place) && one.with === instrument,
  );
  note(exercise, state, words, tells ? 'needed' : 'extra');
  return shown;
}

/** Where hands go for a fault: the battery ports of the set it is in, or the string. */
function handsAt(plan: SitePlan, { kind, at }: SiteFault): readonly string[] {
  if (!BARE_HANDS.has(kind)) return [];
  const set = plan.sets.find(({ stackId, modules }) =>
    modules.some(({ module }) => `${stackId}/${module.id}` === at),
  );
  return set === undefined ? [`string:${at}`] : set.units.map(({ unit }) => `port:${set.stackId}/${unit.id}`);
}

const counts = ({ lines }: Exercise, worth: ExerciseLine['worth']): number =>
  lines.filter((line) => line.worth === worth).length;

/** 100, less what was dangerous, what was named wrongly, and what was measured beyond a look around. */
export function scoreOf(exercise: Exercise): number {
  const extra = Math.max(0, counts(exercise, 'extra') - FREE_EXTRA);
  const lost =
    extra * COST.extra +
    counts(exercise, 'dangerous') * COST.dangerous +
    counts(exercise, 'wrong') * COST.wrong;
  return Math.max(0, 100 - lost);
}

function answer(plan: SitePlan, state: SiteState, exercise: Exercise, fault: SiteFault): string | undefined {
  const named = possibleFaults(plan).find((one) => faultId(one) === faultId(fault));
  if (named === undefined) return 'This installation cannot have that fault.';
  const hands = handsAt(plan, fault);
  // Wherever the fault is: who goes to work on bare terminals has proven one of them dead, or the exercise ends there.
  if (hands.length > 0 && !hands.some((place) => exercise.provenDead.includes(place))) {
    note(exercise, state, `Hands on live DC terminals for: ${named.place}`, 'dangerous');
    end(
      exercise,
      plan,
      false,
      0,
      'Terminals were touched that nobody had proven dead. On a real site this is the end.',
    );
    return undefined;
  }
  const isRight = faultId(fault) === faultId(exercise.fault);
  note(
    exercise,
    state,
    `Named: ${FAULT_KINDS[fault.kind].words}, ${named.place}`,
    isRight ? 'needed' : 'wrong',
  );
  if (!isRight) return undefined;
  const score = counts(exercise, 'needed') < 2 ? Math.min(scoreOf(exercise), 50) : scoreOf(exercise);
  mendFault(plan, state, fault);
  end(
    exercise,
    plan,
    true,
    score,
    counts(exercise, 'needed') < 2
      ? 'Right, but guessed: nothing was measured that tells it.'
      : 'Found by measuring, and mended.',
  );
  return undefined;
}

/** Does what the apprentice does; the answer is what an instrument shows, or why it cannot be done. */
export function actInExercise(
  plan: SitePlan,
  state: SiteState,
  exercise: Exercise,
  act: ExerciseAct,
): { readonly shown?: Shown; readonly problem?: string } {
  if (exercise.result !== undefined) return { problem: 'The exercise is over.' };
  switch (act.act) {
    case 'measure': {
      const shown = takeReading(plan, state, exercise, act);
      return typeof shown === 'string' ? { problem: shown } : { shown };
    }
    case 'prove-tester':
      exercise.isTesterProven = true;
      note(exercise, state, 'The tester was proven on a known source.', 'noted');
      return {};
    case 'answer': {
      const problem = answer(plan, state, exercise, act.fault);
      return problem === undefined ? {} : { problem };
    }
    case 'give-up':
      end(exercise, plan, false, 0, 'Given up.');
      return {};
  }
}
