import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { baseDesign } from '../testkit/designs.ts';
import { closedLoop, threeOnABus, withStrings } from '../testkit/wired.ts';
import {
  actInExercise,
  afterSwitching,
  type Exercise,
  type ExerciseAct,
  openExercise,
} from './apprentice.ts';
import { explainFault } from './explainFault.ts';
import { INSTRUMENTS, measure, measuringPlaces } from './instruments.ts';
import { commandSite } from './siteCommands.ts';
import { FAULT_KIND_LIST, type FaultKind, possibleFaults } from './siteFaults.ts';
import { sitePlan } from './sitePlan.ts';
import type { SitePlan } from './siteTypes.ts';
import { newSite, type SiteState } from './siteState.ts';
import { runSite } from './siteStep.ts';

interface Bench {
  readonly plan: SitePlan;
  readonly state: SiteState;
  readonly exercise: Exercise;
  readonly act: (act: ExerciseAct) => string;
  readonly look: (placeId: string, instrument: keyof typeof INSTRUMENTS, range: number) => string;
  readonly answer: (kind: FaultKind, at: string) => void;
}

function bench(kind: FaultKind, edit: (design: Design) => void = () => undefined): Bench {
  const design = baseDesign();
  edit(design);
  const made = sitePlan(design, SAMPLE_TYPES);
  if (!made.ok) throw new Error(made.sentence);
  const { plan } = made;
  const state = newSite(plan, 5);
  const exercise = openExercise(plan, state, { kind });
  if (typeof exercise === 'string') throw new Error(exercise);
  commandSite(plan, state, { do: 'battery', stackId: 's', closed: true });
  commandSite(plan, state, { do: 'units', on: true });
  commandSite(plan, state, { do: 'circuits', on: true });
  runSite(plan, state, 15);
  const act = (one: ExerciseAct): string => {
    const done = actInExercise(plan, state, exercise, one);
    return done.problem ?? done.shown?.text ?? '';
  };
  return {
    plan,
    state,
    exercise,
    act,
    look: (placeId, instrument, range) => act({ act: 'measure', placeId, instrument, range }),
    answer: (named, at) => void act({ act: 'answer', fault: { kind: named, at } }),
  };
}

function isolate({ plan, state, exercise, act, look }: Bench): void {
  commandSite(plan, state, { do: 'units', on: false });
  commandSite(plan, state, { do: 'battery', stackId: 's', closed: false });
  runSite(plan, state, 1);
  afterSwitching(plan, state, exercise);
  act({ act: 'prove-tester' });
  expect(look('port:s/u1', 'tester', 1000)).toBe('No voltage');
}

describe('an exercise', () => {
  it('is won by measuring, isolating, proving dead and naming the fault', () => {
    const one = bench('terminal-weak');
    const at = one.exercise.fault.at;
    const others = ['s/m1', 's/m2', 's/m3', 's/m4'].filter((id) => id !== at);
    // Through 4 mΩ at some 4 A: 16 mV where a good joint shows 1 to 2.
    const mv = (id: string): number => Number.parseFloat(one.look(`joint:${id}`, 'dc-voltmeter', 0.2)) * 1000;
    expect(mv(at)).toBeGreaterThan(5 * mv(others[0] ?? ''));
    isolate(one);
    one.answer('terminal-weak', at);
    expect(one.exercise.result).toMatchObject({
      isFound: true,
      score: 100,
      verdict: 'Found by measuring, and mended.',
    });
    expect(one.exercise.result?.why.join(' ')).toContain('4 mΩ');
    expect(one.state.faults).toEqual([]);
  });

  it('ends where hands go to terminals that nobody proved dead, also with a tester that was not proven', () => {
    const live = bench('module-aged');
    live.answer('module-aged', live.exercise.fault.at);
    expect(live.exercise.result).toMatchObject({ isFound: false, score: 0 });
    const unproven = bench('module-aged');
    commandSite(unproven.plan, unproven.state, { do: 'battery', stackId: 's', closed: false });
    runSite(unproven.plan, unproven.state, 1);
    unproven.look('port:s/u1', 'tester', 1000);
    unproven.answer('module-aged', unproven.exercise.fault.at);
    expect(unproven.exercise.result?.score).toBe(0);
    // Proven dead, and then switched on again: that proof is gone.
    const again = bench('module-aged');
    isolate(again);
    commandSite(again.plan, again.state, { do: 'battery', stackId: 's', closed: true });
    afterSwitching(again.plan, again.state, again.exercise);
    again.answer('module-aged', again.exercise.fault.at);
    expect(again.exercise.result?.score).toBe(0);
  });

  it('counts what is needless, wrong, guessed and dangerous', () => {
    const one = bench('setting-forgotten', threeOnABus);
    for (let at = 0; at < 5; at += 1) one.look('board:L1', 'ac-voltmeter', 750);
    one.answer('unit-dropped', 's/u2');
    expect(one.exercise.result).toBeUndefined();
    one.look('display:s/u1', 'display', 1);
    one.look('display:s/u2', 'display', 1);
    one.answer(one.exercise.fault.kind, one.exercise.fault.at);
    // Two looks too many at 4, one wrong name at 20.
    expect(one.exercise.result?.score).toBe(100 - 2 * 4 - 20);
    const guessed = bench('firmware-missed', threeOnABus);
    guessed.answer('firmware-missed', guessed.exercise.fault.at);
    expect(guessed.exercise.result?.score).toBe(50);
    const burnt = bench('setting-forgotten', threeOnABus);
    expect(burnt.look('module:s/m1', 'ohmmeter', 200)).toContain('destroyed');
    burnt.act({ act: 'give-up' });
    expect(burnt.exercise.lines.map(({ worth }) => worth)).toEqual(['dangerous']);
    expect(burnt.act({ act: 'prove-tester' })).toBe('The exercise is over.');
  });

  it('ends where a reversed module is joined unseen', () => {
    const one = bench('polarity-swapped');
    afterSwitching(one.plan, one.state, one.exercise);
    expect(one.exercise.result?.score).toBe(0);
    expect(one.exercise.result?.why.join(' ')).toContain('Plus stands where minus belongs');
  });

  it('refuses what the installation cannot have, and a place or range that is not there', () => {
    const one = bench('unit-dropped');
    expect(openExercise(one.plan, one.state, { kind: 'sensor-turned' })).toContain('cannot have');
    expect(one.look('module:s/m9', 'dc-voltmeter', 20)).toBe('There is no such place.');
    expect(one.look('module:s/m1', 'dc-voltmeter', 30)).toBe('That instrument has no such range.');
    expect(one.look('module:s/m1', 'tape', 20)).toBe('Nothing can be read here with this.');
  });

  it('shows a figure to the resolution of its range, and over it', () => {
    const { plan, state } = bench('unit-dropped');
    const place = measuringPlaces(plan).find(({ id }) => id === 'module:s/m1') ?? expect.fail();
    expect(measure(plan, state, place, 'dc-voltmeter', 20).text).toBe('Over the range');
    expect(measure(plan, state, place, 'dc-voltmeter', 200).text).toMatch(/^5\d\.\d V$/);
    expect(measure(plan, state, place, 'tester', 1000).text).toBe('Live');
  });
});

describe('what a fault does', () => {
  const all = (design: Design): void => {
    threeOnABus(design);
    closedLoop(design);
    withStrings(design, 9);
    design.instruments.push({ id: 'ct', kind: 'sensor', at: 'service', line: 'L1' });
  };
  it.each(FAULT_KIND_LIST)(
    '%s is explained, changes what can be measured, and says nothing of itself before',
    (kind) => {
      const { plan } = bench(kind, all);
      const fault = possibleFaults(plan).find((one) => one.kind === kind) ?? expect.fail();
      const why = explainFault(plan, fault);
      expect(why.length).toBeGreaterThan(1);
      expect(why.join(' ')).not.toMatch(/undefined|NaN|\bs\//);
      const figures = (withFault: boolean): string[] => {
        const state = newSite(plan, 2);
        if (withFault) commandSite(plan, state, { do: 'plant', fault });
        commandSite(plan, state, { do: 'battery', stackId: 's', closed: true });
        commandSite(plan, state, { do: 'units', on: true });
        commandSite(plan, state, { do: 'sun', share: 1 });
        commandSite(plan, state, { do: 'isolator', closed: true });
        runSite(plan, state, 80);
        commandSite(plan, state, { do: 'circuits', on: true });
        runSite(plan, state, 2);
        return measuringPlaces(plan).flatMap((place) =>
          place.takes.flatMap((instrument) =>
            instrument === 'ohmmeter'
              ? []
              : INSTRUMENTS[instrument].ranges.map(
                  (range) => `${place.id} ${measure(plan, state, place, instrument, range).text}`,
                ),
          ),
        );
      };
      expect(figures(true)).not.toEqual(figures(false));
    },
  );
});
