import { describe, expect, it } from 'vitest';
import { generator, LIMITS, plant, run, steady, sun } from '../testkit/plant.ts';
import { clockOf, eventTeller, type OutageEvent } from './events.ts';
import { runOutage } from './outage.ts';
import type { OutageRun } from './outageRun.ts';
import type { Plant } from './plant.ts';
import { SEASONS } from './year.ts';

function told(of: Plant, how: OutageRun): readonly string[] {
  const events: OutageEvent[] = [];
  const tell = eventTeller(of, how);
  runOutage(of, how, (minute, now) => events.push(...tell(minute, now)));
  return events.map(({ minute, sentence, isBad }) => `${minute}${isBad ? '!' : ''} ${sentence}`);
}

/** Nothing for five minutes, then as much as anything takes. */
const dawn = steady(0).map((_, minute) => (minute < 5 ? 0 : 5000));
describe('what an outage tells', () => {
  it.each<[string, Plant, OutageRun, readonly string[]]>([
    ['nothing while nothing happens', plant(), run({ minutes: 60 }), []],
    // 4000 Wh / (1000 / 0.9 + 50) W = 206.7 min: in the minute of that the bank still serves, the next is dark.
    ['an empty bank', plant(), run({ minutes: 240 }), ['207! The bank is empty.']],
    [
      'an empty bank that nothing can start again',
      plant({ sunAcW: Array.from({ length: SEASONS }, () => dawn) }),
      run({ startSoc: 0.1, minutes: 60, startMinute: 0, clearness: [1] }),
      ['0! The bank is empty, and sun that is coupled on the AC side cannot start it again.'],
    ],
    [
      'a unit that fails and leaves the others',
      plant({ unitCount: 3, lostUnit: 'rest-continue' }),
      run({ minutes: 30, lose: { what: 'unit', minute: 5 } }),
      ['5 A unit fails: 2 of 3 carry on.'],
    ],
    [
      'a unit by its number',
      plant({
        unitCount: 2,
        lostUnit: 'rest-continue',
        limits: { ...LIMITS, without: ['a', 'b'].map((unitId) => ({ ...LIMITS, unitId })) },
      }),
      run({ minutes: 30, lose: { what: 'unit', minute: 5, unitId: 'b' } }),
      ['5 Unit 2 fails: 1 of 2 carry on.'],
    ],
    [
      'a unit with which the set stops',
      plant({ unitCount: 3, lostUnit: 'set-stops' }),
      run({ minutes: 30, lose: { what: 'unit', minute: 5 } }),
      ['5! A unit fails, and the set stops with it.'],
    ],
    [
      'a module',
      plant({ moduleCount: 4 }),
      run({ minutes: 30, lose: { what: 'module', minute: 5 } }),
      ['5 A module fails: 3 of 4 are left, and what was in it is gone.'],
    ],
    [
      // Sun from minute 5 on; 3000 W of charging limit bring 500 Wh in 10 minutes.
      'a start from an empty bank, by the sun',
      plant({ sunDcW: Array.from({ length: SEASONS }, () => dawn) }),
      run({ startSoc: 0.1, minutes: 16, startMinute: 0, clearness: [1] }),
      [
        '0! The bank is empty.',
        '15 Live again, by the sun.',
        '15 The sun gives more than load and bank take: the rest is held back.',
      ],
    ],
    [
      'sun that is held back, twice a day at most',
      plant({ sunDcW: sun(2500) }),
      run({ startSoc: 1, startMinute: 0, minutes: 900, clearness: [1] }),
      [
        '0 The sun gives more than load and bank take: the rest is held back.',
        '721 The sun gives more than load and bank take: the rest is held back.',
      ],
    ],
  ])('%s', (_, of, how, wanted) =>
    expect(told(of, how).slice(0, Math.max(1, wanted.length))).toEqual(wanted),
  );

  it('a start from an empty bank, by the generator', () => {
    const sentences = told(plant({ generator }), run({ startSoc: 0.1, minutes: 120, generatorFromSoc: 0.3 }));
    expect(sentences.some((one) => one.endsWith('Live again, by the generator.'))).toBe(true);
    expect(sentences.some((one) => one.endsWith('The generator carries the load and charges.'))).toBe(true);
  });

  it('a generator whose fuel is spent', () => {
    // 0.6 L/h of idling and 0.3 L/kWh of 3 kW come to 1.5 L/h: half a litre is gone in 20 minutes.
    const dry = plant({ generator: { ...generator, fuelL: 0.5 } });
    const sentences = told(dry, run({ startSoc: 0.3, minutes: 240, generatorFromSoc: 0.3 }));
    expect(sentences.some((one) => one.endsWith('The generator stops: its fuel is spent.'))).toBe(true);
  });

  it.each([
    [0, '18:30'],
    [90, '20:00'],
    [330, '00:00, day 2'],
    [330 + 1440, '00:00, day 3'],
  ])('minute %s of an outage from half past six is %s', (minute, clock) =>
    expect(clockOf({ startMinute: 1110 }, minute)).toBe(clock),
  );
});
