import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { applyEdits } from '../design/applyEdits.ts';
import { readDesign } from '../design/read.ts';
import type { Design } from '../design/schema.ts';
import { bonded, variantOf, withSwitchedSet } from '../testkit/bonding.ts';
import { baseDesign, stack1 } from '../testkit/designs.ts';
import { withSet } from '../testkit/wired.ts';
import { bondingMends } from './bonding.ts';

function designOf(edit: (design: Design) => void): Design {
  const design = baseDesign();
  bonded(design);
  edit(design);
  return design;
}
const first = (design: Design) => {
  const [best] = bondingMends(design, SAMPLE_TYPES);
  return best === undefined ? undefined : [best.id, best.before.over, best.after.over];
};

describe('mends of bonding', () => {
  it('offers nothing where nothing is wrong', () => expect(first(designOf(() => undefined))).toBeUndefined());

  // Island: relay and, through the solid neutral, the utility. Off leaves the utility alone.
  it('a transfer device with a solid neutral beside a relay: the relay off, or a device that opens the neutral', () => {
    const design = designOf((d) => {
      const type = variantOf('transfer-device', 'changeover-63a-4p', { neutral: 'solid' });
      d.types.push(type);
      stack1(d).transferDeviceTypeId = type.id;
    });
    const mends = bondingMends(design, SAMPLE_TYPES);
    expect(mends.map(({ id }) => id)).toEqual(
      expect.arrayContaining(['relay-off-s', 'transfer-s-changeover-63a-4p']),
    );
    expect(mends[0]?.after.over).toBe(0);
  });

  it('a floating set behind a switch that opens the neutral: bond it', () =>
    expect(first(designOf((d) => withSwitchedSet(d, 'switched')))).toEqual(['bonded-g1', 1, 0]));

  it('two sets on one port: one of them through a switch that parts the neutral, bonded behind it', () => {
    const design = designOf((d) => {
      withSet(d);
      withSet(d);
      Object.assign(d.generators[1] ?? {}, { id: 'g2', name: 'Other set' });
    });
    expect(first(design)).toEqual(['switch-g1-changeover-40a-2p-bonded', 1, 0]);
  });

  it('an inlet on the service board: bring it in by the generator port or a switch', () => {
    const design = designOf(
      (d) =>
        void d.generators.push({
          id: 'g1',
          name: 'Set',
          typeId: 'petrol-4k-1ph',
          connection: 'inlet',
          inletAt: 'service-board',
          stackId: 's',
        }),
    );
    const [best] = bondingMends(design, SAMPLE_TYPES);
    expect(best?.after.over).toBe(0);
    const mended = applyEdits(design, best?.edits ?? []);
    const read = mended.ok ? readDesign(mended.value, SAMPLE_TYPES) : undefined;
    if (read?.ok !== true) throw new Error('The edits fit the design they were made for.');
    expect(bondingMends(read.value, SAMPLE_TYPES)).toEqual([]);
  });
});
