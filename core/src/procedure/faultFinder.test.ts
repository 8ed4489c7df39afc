import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { compile } from '../installation/compile.ts';
import { baseDesign } from '../testkit/designs.ts';
import { closedLoop, threeOnABus, withMeters } from '../testkit/wired.ts';
import { type Answer, judgeMeasured, searchFault } from './faultFinder.ts';
import { type Symptom, SYMPTOMS } from './plainSuspects.ts';

function installed(edit: (design: ReturnType<typeof baseDesign>) => void = () => undefined) {
  const design = baseDesign();
  edit(design);
  return compile(design, SAMPLE_TYPES);
}

describe('finding a fault by elimination', () => {
  it('halves a battery bus of four cables: with a bad third cable two or three readings name it', () => {
    const installation = installed(closedLoop);
    const answers: Answer[] = [];
    // The pair is good up to the second module, and dead from the third on.
    for (;;) {
      const { next } = searchFault(installation, 'battery-comms-lost', answers);
      if (next === undefined) break;
      const at = ['l1', 'l2', 'l3', 'l4'].findIndex((id) => next.id.endsWith(` ${id}`));
      answers.push({ measurementId: next.id, isAsExpected: at < 2 });
    }
    const { left } = searchFault(installation, 'battery-comms-lost', answers);
    expect(left.map(({ what }) => what)).toEqual([
      'the cable module 2 to module 3, its plugs and its pair',
      'the socket, address or terminator of module 2',
    ]);
    expect(answers.length).toBeLessThanOrEqual(3);
  });

  it('says where to measure and what to expect there', () => {
    const { next } = searchFault(installed(closedLoop), 'battery-comms-lost', []);
    expect(next?.place).toMatch(/^at module [23], socket UP/);
    expect(next?.expected).toBe('3.8 to 5 V');
  });

  it('looks at the bus that the symptom is about', () => {
    expect(
      searchFault(
        installed((d) => void withMeters(d)),
        'meter-lost',
        [],
      ).left[0]?.what,
    ).toContain('meter');
    expect(searchFault(installed(threeOnABus), 'unit-lost', []).left[0]?.what).toContain('unit');
  });

  it.each([
    [3.2, false],
    [3.8, true],
    [5, true],
    [5.1, false],
  ])('%d V on a pair that should have 3.8 to 5 V', (value, isAsExpected) => {
    const { next } = searchFault(installed(closedLoop), 'battery-comms-lost', []);
    expect(next && judgeMeasured(next, value)).toBe(isAsExpected);
  });

  it('takes a figure from another place than the next, and asks for none that rules nothing out', () => {
    const installation = installed(closedLoop);
    const { next, others } = searchFault(installation, 'battery-comms-lost', []);
    expect(others).toHaveLength(3);
    expect(others).not.toContain(next);
    // Dead at the first module already: nothing beyond it tells anything any more.
    const first = others.find(({ id }) => id.endsWith(' l1'));
    const after = searchFault(installation, 'battery-comms-lost', [
      { measurementId: first?.id ?? '', isAsExpected: false },
    ]);
    expect(after.others).toEqual([]);
  });

  it('says that there is no such bus', () => {
    expect(searchFault(installed(), 'meter-lost', []).nothing).toMatch(/No cable of this bus/);
  });

  it.each(Object.keys(SYMPTOMS) as Symptom[])(
    '%s: every way of answering ends with something left',
    (symptom) => {
      const installation = installed((d) => {
        threeOnABus(d);
        closedLoop(d);
        withMeters(d);
      });
      // All as expected but the one at a place: whatever it is, it is never ruled out altogether.
      for (let bad = 0; bad < 8; bad += 1) {
        const answers: Answer[] = [];
        for (let asked = 0; ; asked += 1) {
          const { next, left } = searchFault(installation, symptom, answers);
          if (asked < bad) expect(left.length).toBeGreaterThan(0);
          if (next === undefined || asked > 12) break;
          answers.push({ measurementId: next.id, isAsExpected: asked !== bad });
          if (asked === bad) {
            expect(searchFault(installation, symptom, answers).left.length).toBeGreaterThan(0);
            break;
          }
        }
      }
    },
  );
});
