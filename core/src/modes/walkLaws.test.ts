import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { compile } from '../installation/compile.ts';
import type { Installation } from '../installation/installation.ts';
import { MODE_KINDS } from '../installation/modeKinds.ts';
import type { Network } from '../installation/network.ts';
import { withSolidInverter, withSwitchedSet } from '../testkit/bonding.ts';
import { stack1, threePhase } from '../testkit/designs.ts';
import { designOf, factsOf } from '../testkit/walked.ts';
import { withSet } from '../testkit/wired.ts';
import { known } from '../values/known.ts';
import { modesOf } from './modes.ts';
import type { ModeFacts } from './walk.ts';

/** Designs of many kinds, for laws. */
const anyDesign = fc
  .record({
    lines: fc.constantFrom<[number, number, number]>([1, 1, 1], [2, 1, 1], [2, 2, 2]),
    solid: fc.boolean(),
    bypass: fc.constantFrom(undefined, 'solid', 'switched' as const),
    relay: fc.constantFrom('on', 'off' as const),
    school: fc.constantFrom('none', 'port', 'switch-solid', 'switch-switched', 'inlet' as const),
    frame: fc.constantFrom('bonded', 'floating' as const),
    link: fc.boolean(),
  })
  .map((one) =>
    designOf((d) => {
      threePhase(d, one.lines);
      if (one.solid) withSolidInverter(d);
      if (one.bypass !== undefined)
        Object.assign(d.site, {
          maintenanceBypass: 'yes',
          bypassNeutral: one.bypass,
          bypassInterlocked: 'yes',
        });
      stack1(d).neutralEarthRelay = one.relay;
      if (one.school === 'port') withSet(d, 'diesel-20k-3ph');
      if (one.school === 'switch-solid') withSwitchedSet(d, 'solid');
      if (one.school === 'switch-switched') withSwitchedSet(d, 'switched');
      if (one.school === 'inlet')
        d.generators.push({
          id: 'g1',
          name: 'Set',
          typeId: 'diesel-20k-3ph',
          connection: 'inlet',
          inletAt: 'backed-up-board',
          stackId: 's',
        });
      for (const generator of d.generators) Object.assign(generator, { neutralBond: one.frame, line: 'L1' });
      if (one.link && d.partitions[1] !== undefined) d.partitions[1].neutralEarthLink = 'yes';
    }),
  );

/** The same installation with another network. */
const withNetwork = (installation: Installation, change: (network: Network) => Network): Installation => {
  if (!installation.network.known) throw new Error('The supply is known.');
  return { ...installation, network: known(change(installation.network.value)) };
};

describe('laws of the walk', () => {
  it('opening a contact never makes anything live', () => {
    fc.assert(
      fc.property(anyDesign, fc.nat(), (design, pick) => {
        const whole = compile(design, SAMPLE_TYPES);
        const opened = withNetwork(whole, (network) => {
          const at = pick % network.contacts.length;
          return {
            ...network,
            contacts: network.contacts.map((one, index) => (index === at ? { ...one, closedIn: {} } : one)),
          };
        });
        for (const { id } of modesOf(whole)) {
          const before = new Map(factsOf(whole, id).live.map((one) => [one.partId, one.sources]));
          for (const { partId, sources } of factsOf(opened, id).live)
            for (const source of sources)
              expect(before.get(partId) ?? [], `${id} ${partId}`).toContain(source);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('finds the same whatever the order of parts, conductors and contacts', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        const whole = compile(design, SAMPLE_TYPES);
        const turned = withNetwork(whole, (network) => ({
          ...network,
          parts: [...network.parts].reverse(),
          ports: [...network.ports].reverse(),
          conductors: [...network.conductors].reverse(),
          contacts: [...network.contacts].reverse(),
          bonds: [...network.bonds].reverse(),
        }));
        const plain = ({ live, neutrals, clashes, backFeed }: ModeFacts) => ({
          live: live.map((one) => [one.partId, [...one.sources].sort()]).sort(),
          neutrals: neutrals.map(({ boards, bonds }) => [[...boards].sort(), [...bonds].sort()]).sort(),
          clashes: clashes.length,
          fed: backFeed?.source,
        });
        for (const { id } of modesOf(whole))
          expect(plain(factsOf(turned, id))).toEqual(plain(factsOf(whole, id)));
      }),
      { numRuns: 40 },
    );
  });

  it('removing a bond that stands on a neutral lowers its count by one', () => {
    fc.assert(
      fc.property(anyDesign, fc.nat(), (design, pick) => {
        const whole = compile(design, SAMPLE_TYPES);
        for (const { id } of modesOf(whole))
          for (const neutral of factsOf(whole, id).neutrals) {
            const gone = neutral.bonds[pick % Math.max(1, neutral.bonds.length)];
            if (gone === undefined) continue;
            const less = withNetwork(whole, (network) => ({
              ...network,
              bonds: network.bonds.filter((one) => one.id !== gone),
            }));
            const after = factsOf(less, id).neutrals.find(({ boards }) =>
              boards.includes(neutral.boards[0] ?? ''),
            );
            expect(after?.bonds.length).toBe(neutral.bonds.length - 1);
          }
      }),
      { numRuns: 60 },
    );
  });

  it('is plain data: installation and facts survive JSON', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        const whole = compile(design, SAMPLE_TYPES);
        const again = JSON.parse(JSON.stringify(whole)) as Installation;
        for (const kind of MODE_KINDS)
          for (const { id } of modesOf(whole).filter((mode) => mode.kind === kind))
            expect(factsOf(again, id)).toEqual(factsOf(whole, id));
      }),
      { numRuns: 20 },
    );
  });
});
