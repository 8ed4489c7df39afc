import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import { compile } from '../installation/compile.ts';
import { sizeLine } from '../sizing/sizeLine.ts';
import { bonded } from '../testkit/bonding.ts';
import { baseDesign, circuit1, deepFreeze, forget } from '../testkit/designs.ts';
import { cellsOf, rowsOf } from '../testkit/schedules.ts';
import { vanAnswers } from './van.ts';

type Remnants = NonNullable<NonNullable<Design['wiring']>['remnants']>;

/** The heater: 10 A behind C16, 12 m of cable with line, neutral and earth. */
function heater(design: Design, remnants: Remnants): void {
  design.site.prospectiveFaultA = 3000;
  Object.assign(circuit1(design), { cable: { lengthM: 12 }, device: { ratedA: 16, curve: 'C' } });
  design.wiring = { remnants };
}

function answers(label: string, edit: (design: Design) => void): (readonly [string, string])[] {
  const design = baseDesign();
  bonded(design);
  edit(design);
  const installation = compile(deepFreeze(design), SAMPLE_TYPES);
  const lines = cableLines(installation);
  const line = lines.known ? lines.value.find((one) => one.label === label) : undefined;
  const sized = line && sizeLine(installation, line);
  if (sized?.known !== true) throw new Error(`${label} is sized.`);
  return vanAnswers(installation, sized.value).map(({ state, words }) => [state, words] as const);
}

const cable = (areaMm2: number, lengthM: number, cores = 3): Remnants[number] => ({
  id: `r${areaMm2} ${lengthM}`,
  make: 'cable',
  areaMm2,
  lengthM,
  cores,
});

describe('what is in the van for a cable', () => {
  // 1.5 mm² by method C carries 19.5 A, and loses 2 · 12 · 10 · 12.1 mΩ · 1.1965 = 3.5 V of 230 V.
  it.each<[string, Remnants, (readonly [string, string])[]]>([
    [
      'a size that passes, and is long enough',
      [cable(1.5, 15)],
      [['within', 'within, and long enough: 15 m for 12 m']],
    ],
    [
      'one that is cut to the millimetre',
      [cable(1.5, 12)],
      [['within', 'within, and long enough: 12 m for 12 m']],
    ],
    ['one that is too short', [cable(2.5, 8)], [['over', 'too short: 8 m for 12 m']]],
    ['other cores', [cable(2.5, 20, 5)], []],
    ['other makes', [{ id: 'r', make: 'single', areaMm2: 2.5, lengthM: 50 }], []],
    [
      'thinnest first',
      [cable(4, 20), cable(2.5, 20)],
      [
        ['within', 'within, and long enough: 20 m for 12 m'],
        ['within', 'within, and long enough: 20 m for 12 m'],
      ],
    ],
  ])('%s', (_, remnants, wanted) => expect(answers('Heat', (d) => heater(d, remnants))).toEqual(wanted));

  it('a size that fails says by what', () => {
    const [[state, words] = ['', '']] = answers('Heat', (d) => {
      heater(d, [cable(1.5, 15)]);
      circuit1(d).device = { ratedA: 20, curve: 'C' };
    });
    expect(state).toBe('over');
    expect(words).toContain('I_n = 20 A of I_z = 19.5');
  });

  it.each<[string, (d: Design) => void, string]>([
    ['without a length', (d) => forget(circuit1(d), 'cable'), 'missing: length of Heat'],
    ['without a device', (d) => forget(circuit1(d), 'device'), 'no rating of its device'],
  ])('%s it is not known', (_, edit, says) => {
    const [[state, words] = ['', '']] = answers('Heat', (d) => {
      heater(d, [cable(1.5, 15)]);
      edit(d);
    });
    expect(state).toBe('unknown');
    expect(words).toContain(says);
  });

  const lead = (lengthM: number, over: Partial<Remnants[number]> = {}): Remnants[number] => ({
    id: 'r',
    make: 'flexible',
    areaMm2: 50,
    lengthM,
    ...over,
  });
  // A lead of 1 m to each pole.
  it.each<[string, Remnants, string]>([
    ['both poles out of one piece', [lead(2.5)], 'within, and long enough: 2.5 m for 1 m'],
    ['one of two', [lead(1.5)], 'enough for 1 of 2 conductors: 1.5 m for 1 m'],
    ['two alike', [lead(1.5, { pieces: 2 })], 'within, and long enough: 1.5 m for 1 m'],
    ['the red one', [lead(1.5, { colour: 'red' })], 'within, and long enough: 1.5 m for 1 m'],
  ])('%s', (_, remnants, words) =>
    expect(answers('lead of module 1 of Stack', (d) => void (d.wiring = { remnants }))[0]?.[1]).toBe(words),
  );

  it('the thinnest that serves stands in the schedule', () => {
    const rows = rowsOf('conductors', (d) => heater(d, [cable(2.5, 40), cable(1.5, 8), cable(1.5, 20)]));
    expect(cellsOf(rows, { cable: 'Heat' }).van).toBe('1.5 mm², 20 m');
  });
});
