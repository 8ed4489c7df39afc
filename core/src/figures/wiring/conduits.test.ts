import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Design } from '../../design/schema.ts';
import { compile } from '../../installation/compile.ts';
import { addLoad, baseDesign, circuit1, deepFreeze, forget } from '../../testkit/designs.ts';
import { bonded } from '../../testkit/bonding.ts';
import { cellsOf, rowsOf } from '../../testkit/schedules.ts';
import { inConduits } from './conduits.ts';

type Cables = NonNullable<NonNullable<Design['wiring']>['cables']>;

/** Four circuits of one line, two of them in one conduit of 25 mm, three in another, and the first in both. */
function conduits(design: Design, cables: Cables = []): void {
  bonded(design);
  for (const id of ['b', 'c', 'd']) addLoad(design, id, ['L1']);
  const [a = '', b = '', c = '', d = ''] = design.circuits.map(({ id }) => `circuit ${id}`);
  const one = (id: string, lineIds: string[]) => ({
    id,
    name: `conduit ${id}`,
    kind: 'conduit' as const,
    lineIds,
  });
  design.wiring = {
    cables,
    passages: [one('p', [a, b]), one('q', [a, c, d]), { ...one('g', [a, b, c, d]), kind: 'gland' }],
  };
}

const carrying = (edit: (design: Design) => void): (number | undefined)[] => {
  const design = baseDesign();
  edit(design);
  const found = inConduits(compile(deepFreeze(design), SAMPLE_TYPES));
  return design.circuits.map(({ id }) => found.get(`circuit ${id}`)?.carrying);
};

describe('what lies together in a conduit', () => {
  it.each<[string, (design: Design) => void, (number | undefined)[]]>([
    ['metric: circuits, of two conduits the fuller', (d) => conduits(d), [3, 2, 3, 3]],
    [
      'metric: conductors in parallel are as many circuits',
      (d) => conduits(d, [{ id: 'w', lineId: 'circuit c1', parallel: 2 }]),
      [4, 3, 4, 4],
    ],
    [
      // Line and neutral of each carry.
      'North American: conductors that carry, of one line both',
      (d) => {
        conduits(d);
        d.site.codeProfile = 'north-american';
      },
      [6, 4, 6, 6],
    ],
    [
      'North American: a neutral that is said to carry counts for its fellows; its own factor counts it by itself',
      (d) => {
        conduits(d, [{ id: 'w', lineId: 'circuit c1', neutralCounts: 'yes' }]);
        d.site.codeProfile = 'north-american';
      },
      [6, 5, 7, 7],
    ],
    [
      'nothing is known without a profile',
      (d) => {
        conduits(d);
        forget(d.site, 'codeProfile');
      },
      [undefined, undefined, undefined, undefined],
    ],
  ])('%s', (_, edit, wanted) => expect(carrying(edit)).toEqual(wanted));

  // Table B.52.17: one circuit 1, two 0.8, three 0.7. Method B2 with two loaded conductors of 2.5 mm² in PVC: 23 A · 0.7 = 16.1 A.
  it('weakens its cables, and lays them in it', () => {
    const row = cellsOf(
      rowsOf('conductors', (d) => {
        conduits(d);
        circuit1(d).cable = { lengthM: 5, areaMm2: 2.5 };
        circuit1(d).device = { ratedA: 20, curve: 'C' };
      }),
      { cable: 'Heat' },
    );
    expect(row.laid).toBe('PVC70, method B2, 30 °C, 3 bunched, as conduit q is filled');
    expect(row.verdict).toContain('I_n = 20 A of I_z = 23 · 1 (30 °C) · 0.7 (grouping) = 16.1 A');
  });

  it('what is said of the cable itself stands before it', () => {
    const row = cellsOf(
      rowsOf('conductors', (d) => conduits(d, [{ id: 'w', lineId: 'circuit c1', grouped: 1, method: 'C' }])),
      { cable: 'Heat' },
    );
    expect(row.laid).toBe('PVC70, method C, 30 °C, by itself');
  });
});
