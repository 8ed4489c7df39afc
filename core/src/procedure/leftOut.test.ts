import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { baseDesign } from '../testkit/designs.ts';
import { threeOnABus, withMeters, withStrings } from '../testkit/wired.ts';
import { procedureFor } from './generate.ts';

const leftOut = (edit: (design: Design) => void = () => undefined): string[] => {
  const design = baseDesign();
  edit(design);
  return (procedureFor(design, SAMPLE_TYPES).leftOut ?? []).map(({ what, why }) => `${what}: ${why}`);
};

describe('what a test leaves out', () => {
  it('is said with its reason', () => {
    expect(leftOut()).toEqual([
      'Generator: start, warm-up, transfer, charging, return: no generator is planned',
      'PV strings: no string is plugged into an inverter',
      'AC power held back in island and let go: no PV is coupled on the AC side',
      'Rapid shutdown: no array has it fitted',
      'Shed stages: no board is shed',
      'Commissioning of a controller: there is no controller over the sets',
    ]);
  });

  it.each<[string, (design: Design) => void, string]>([
    [
      'a generator',
      (d) =>
        d.generators.push({
          id: 'g',
          name: 'Set',
          typeId: 'diesel-20k-3ph',
          connection: 'generator-port',
          stackId: 's',
        }),
      'no generator',
    ],
    ['strings', (d) => withStrings(d, 9), 'no string'],
    ['a controller', (d) => void withMeters(d), 'no controller'],
  ])('is not said where there is one: %s', (_, edit, words) => {
    expect(leftOut(edit).join()).not.toContain(words);
  });

  it('asks where nobody has decided, and says what was decided', () => {
    expect(leftOut(threeOnABus).join()).toContain('nobody has decided');
    const decided = leftOut((d) => {
      threeOnABus(d);
      d.site.surviveUnitLoss = 'no';
    });
    expect(decided).toContain('Loss of a unit: the job says that the loss of a unit need not be survived');
    const tested = leftOut((d) => {
      threeOnABus(d);
      d.site.surviveUnitLoss = 'yes';
    });
    expect(tested.join()).not.toContain('Loss of a unit');
  });
});
