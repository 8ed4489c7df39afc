import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { DURATION_POINTS } from '../design/meters.ts';
import type { Design } from '../design/schema.ts';
import { compile } from '../installation/compile.ts';
import { addLoad, baseDesign, item1 } from '../testkit/designs.ts';
import { runOutage } from './outage.ts';
import { plantsOf } from './rehearse.ts';
import { run } from '../testkit/plant.ts';

const at = '2026-01-01T00:00:00Z';
/** A meter that has read so many W all winter, but for one hour of which it has nothing. */
const meter = (scope: string, watts: number): Design['meters'][number] => ({
  id: 'm',
  name: 'Meter',
  scope,
  source: 'meter.csv',
  intervalMin: 60,
  firstAt: at,
  lastAt: at,
  readings: 24,
  missing: 0,
  peakW: watts,
  peakAt: at,
  durationW: Array.from({ length: DURATION_POINTS }, () => watts),
  seasons: [
    { season: 'winter', hourW: Array.from({ length: 24 }, (_, hour) => (hour === 3 ? null : watts)) },
  ],
});

const JANUARY = 1;
const JULY = 37;

function loadOf(edit: (design: Design) => void) {
  const design = baseDesign();
  // 2300 W of one item, all day.
  Object.assign(item1(design), { hoursPerDay: 24, demandFactor: 1 });
  edit(design);
  const [first] = plantsOf(compile(design, SAMPLE_TYPES));
  if (first?.plant.known !== true) throw new Error('It can be played.');
  const { boards, loadFrom } = first.plant.value;
  const [board] = boards;
  const watts = (season: number, hour: number): number =>
    (board?.seasonW?.[season] ?? board?.minuteW)?.[hour * 60] ?? NaN;
  return { plant: first.plant.value, loadFrom, watts };
}

describe('load from a meter', () => {
  it.each([
    ['of the board', 'b'],
    ['of the whole building, all of which is backed up', 'building'],
  ])('%s: its hours in its seasons, the hours of the items elsewhere', (_, scope) => {
    const { watts, loadFrom, plant } = loadOf((d) => d.meters.push(meter(scope, 800)));
    const planned = loadOf(() => undefined).watts(JANUARY, 12);
    expect(planned).toBeGreaterThan(1000);
    expect(watts(JANUARY, 12)).toBeCloseTo(800, 9);
    expect(watts(JANUARY, 3)).toBe(planned);
    expect(watts(JULY, 12)).toBe(planned);
    expect(loadFrom).toContain(
      'Load as measured: Meter, but in spring and summer and autumn by the hours of its items.',
    );
    // Played from noon of a January day: 800 W for an hour.
    const played = runOutage(plant, run({ season: JANUARY, startMinute: 720, minutes: 60 }));
    expect(played.energy.served).toBeCloseTo(800, 6);
  });

  it('of the whole building is left alone where a part of it is not backed up, and that is said', () => {
    const { watts, loadFrom } = loadOf((d) => {
      d.meters.push(meter('building', 800));
      addLoad(d, 'c2', ['L1'], { runningW: 100, hoursPerDay: 24 });
      delete d.circuits.find(({ id }) => id === 'c2')?.partitionId;
    });
    expect(watts(JANUARY, 12)).toBeGreaterThan(1000);
    expect(loadFrom).toContain('has measured more than is backed up here');
  });

  it('is the other season south of the equator', () => {
    const { watts } = loadOf((d) => {
      d.site.latitudeDeg = -30;
      d.meters.push(meter('b', 800));
    });
    expect(watts(JULY, 12)).toBeCloseTo(800, 9);
    expect(watts(JANUARY, 12)).toBeGreaterThan(1000);
  });
});
