import { startClasses } from './tables.generated.ts';

/** A stretch of a start: a multiple of running VA at a power factor, held for a time. */
export interface StartStep {
  readonly multiple: number;
  readonly durationS: number;
  readonly powerFactor: number;
}

export type StartClassName = (typeof startClasses)[number]['startClass'];

/** Second peak of a star-delta start at changeover, from the note of its row: four times running for a tenth of a second. */
const STAR_DELTA_CHANGEOVER: StartStep = { multiple: 4, durationS: 0.1, powerFactor: 0.4 };

/** Classes whose inrush is over before an inverter's overload protection acts: for breakers and waveforms, not for the curve. */
const PEAK_ONLY: ReadonlySet<StartClassName> = new Set(['electronic']);

/** Classes without a start. */
const NO_START: ReadonlySet<StartClassName> = new Set(['steady']);

const STEPS: ReadonlyMap<StartClassName, readonly StartStep[]> = new Map(
  startClasses.map((row) => {
    const step: StartStep = {
      multiple: row.multipleOfRunningVA,
      durationS: row.durationS,
      powerFactor: row.startingPowerFactor,
    };
    if (NO_START.has(row.startClass) || PEAK_ONLY.has(row.startClass)) return [row.startClass, []];
    return [row.startClass, row.startClass === 'star-delta' ? [step, STAR_DELTA_CHANGEOVER] : [step]];
  }),
);

/** The planning steps of a start class that count against an overload curve; empty where there are none. */
export function startSteps(startClass: StartClassName): readonly StartStep[] {
  return STEPS.get(startClass) ?? [];
}

/** What each class stands for, for choosing one. */
export const START_CLASS_ROWS = startClasses;
