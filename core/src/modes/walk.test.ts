import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { compile } from '../installation/compile.ts';
import { variantOf, withSolidInverter, withSwitchedSet } from '../testkit/bonding.ts';
import { stack1, threePhase } from '../testkit/designs.ts';
import { designOf, factsOf } from '../testkit/walked.ts';
import { withSet } from '../testkit/wired.ts';
import { modesOf } from './modes.ts';

/** Bonds seen from the neutral of the backed-up board. */
const bondsIn = (design: Design, mode: string): number | undefined =>
  factsOf(compile(design, SAMPLE_TYPES), mode).neutrals.find(({ boards }) => boards.includes('board b'))
    ?.bonds.length;

type Row = [
  neutralPole: 'solid' | 'switched',
  set: 'bonded' | 'floating',
  relay: 'on' | 'off',
  island: number,
  running: number,
  why: string,
];

describe('bonds on the backed-up neutral', () => {
  // The pole is that of the inverter's own relay; its neutral–earth relay stays closed while the set feeds the generator port.
  it.each<Row>([
    ['switched', 'bonded', 'on', 1, 2, 'island: relay; running: relay and frame'],
    ['switched', 'bonded', 'off', 0, 1, 'island: none; running: frame'],
    ['switched', 'floating', 'on', 1, 1, 'island: relay; running: relay'],
    ['switched', 'floating', 'off', 0, 0, 'nothing bonds it'],
    ['solid', 'bonded', 'on', 3, 3, 'utility and frame hang on for good, and the relay'],
    ['solid', 'bonded', 'off', 2, 2, 'utility and frame'],
    ['solid', 'floating', 'on', 2, 2, 'utility and relay'],
    ['solid', 'floating', 'off', 1, 1, 'utility alone'],
  ])(
    'generator port, %s inverter neutral, %s set, relay %s: %i in island, %i running: %s',
    (pole, set, relay, island, running) => {
      const design = designOf((d) => {
        if (pole === 'solid') withSolidInverter(d);
        withSet(d);
        const [generator] = d.generators;
        if (generator !== undefined) generator.neutralBond = set;
        stack1(d).neutralEarthRelay = relay;
      });
      expect([bondsIn(design, 'island'), bondsIn(design, 'generator-port')]).toEqual([island, running]);
    },
  );

  // The pole is that of the transfer switch; the inverter opens its own neutral and takes the set for the grid, so its relay is open.
  it.each<Row>([
    ['switched', 'bonded', 'on', 1, 1, 'island: relay; running: frame'],
    ['switched', 'bonded', 'off', 0, 1, 'running: frame'],
    ['switched', 'floating', 'on', 1, 0, 'running: nothing bonds it'],
    ['switched', 'floating', 'off', 0, 0, 'nothing bonds it'],
    ['solid', 'bonded', 'on', 1, 2, 'running: utility through the solid neutral, and frame'],
    ['solid', 'bonded', 'off', 0, 2, 'running: utility and frame'],
    ['solid', 'floating', 'on', 1, 1, 'running: utility'],
    ['solid', 'floating', 'off', 0, 1, 'running: utility'],
  ])(
    'transfer switch, %s neutral, %s set, relay %s: %i in island, %i running: %s',
    (pole, set, relay, island, running) => {
      const design = designOf((d) => {
        withSwitchedSet(d, pole);
        const [generator] = d.generators;
        if (generator !== undefined) generator.neutralBond = set;
        stack1(d).neutralEarthRelay = relay;
      });
      expect([bondsIn(design, 'island'), bondsIn(design, 'transfer-switch')]).toEqual([island, running]);
    },
  );

  it.each<[string, (design: Design) => void, number]>([
    [
      'a bypass with a solid neutral brings the utility into island: relay and utility',
      (d) => void Object.assign(d.site, { maintenanceBypass: 'yes', bypassNeutral: 'solid' }),
      2,
    ],
    [
      'a bypass that opens its neutral does not: relay',
      (d) => void Object.assign(d.site, { maintenanceBypass: 'yes', bypassNeutral: 'switched' }),
      1,
    ],
    [
      'an IT grid has no bond of its own; solid inverter neutral: relay alone',
      (d) => {
        withSolidInverter(d);
        d.site.earthing = 'IT';
      },
      1,
    ],
    [
      'a link in the board beside the relay',
      (d) => d.partitions.forEach((one) => one.id === 'b' && (one.neutralEarthLink = 'yes')),
      2,
    ],
    [
      'an external kit that is fitted',
      (d) => {
        const type = variantOf('inverter', 'hybrid-5k-1ph', { neutralEarthRelay: 'external-kit' });
        d.types.push(type);
        Object.assign(stack1(d), { inverterTypeId: type.id, relayKit: 'fitted' });
      },
      1,
    ],
    [
      'an external kit that is not there',
      (d) => {
        const type = variantOf('inverter', 'hybrid-5k-1ph', { neutralEarthRelay: 'external-kit' });
        d.types.push(type);
        Object.assign(stack1(d), { inverterTypeId: type.id, relayKit: 'none' });
      },
      0,
    ],
    [
      'a three-pole transfer device, solid neutral: relay and utility',
      (d) => {
        const type = variantOf('transfer-device', 'changeover-63a-4p', { neutral: 'solid' });
        d.types.push(type);
        stack1(d).transferDeviceTypeId = type.id;
      },
      2,
    ],
    [
      'a four-pole transfer device: relay',
      (d) => void (stack1(d).transferDeviceTypeId = 'changeover-63a-4p'),
      1,
    ],
    [
      'relays set unit by unit, both on',
      (d) => {
        stack1(d).arrangement = 'parallel-single-phase';
        stack1(d).units = [
          { id: 'u1', neutralEarthRelay: 'on' },
          { id: 'u2', neutralEarthRelay: 'on' },
        ];
      },
      2,
    ],
  ])('%s', (_, edit, count) => expect(bondsIn(designOf(edit), 'island')).toBe(count));

  it('what is not known is held both ways: a relay that nobody states is a bond perhaps', () => {
    const design = designOf((d) => {
      const type = variantOf('inverter', 'hybrid-5k-1ph', {});
      delete type.neutralEarthRelay;
      d.types.push(type);
      stack1(d).inverterTypeId = type.id;
    });
    const [neutral] = factsOf(compile(design, SAMPLE_TYPES), 'island').neutrals;
    expect([neutral?.bonds, neutral?.perhaps, neutral?.missing]).toEqual([
      [],
      ['relay s'],
      [['types', 'hybrid-5k-1ph-own', 'neutralEarthRelay']],
    ]);
  });
});

describe('sources', () => {
  const inlet = (inletAt: 'service-board' | 'backed-up-board') => (d: Design) =>
    void d.generators.push({
      id: 'g1',
      name: 'Set',
      typeId: 'petrol-4k-1ph',
      connection: 'inlet',
      inletAt,
      stackId: 's',
    });

  it('an inlet on the service board feeds the grid back through the service main', () => {
    const facts = factsOf(compile(designOf(inlet('service-board')), SAMPLE_TYPES), 'generator-inlet');
    expect(facts.backFeed?.source).toBe('generator g1');
    expect(facts.backFeed?.path).toEqual([
      'generator g1',
      'generator-device g1',
      'inlet g1',
      'service-board',
      'service-main',
      'grid',
    ]);
  });

  it('an inlet on the backed-up board meets the inverter, which does not see it', () => {
    const facts = factsOf(compile(designOf(inlet('backed-up-board')), SAMPLE_TYPES), 'generator-inlet');
    expect(facts.clashes.map(({ sources }) => [...sources].sort())).toEqual([['generator g1', 'unit s/u1']]);
    expect(facts.backFeed).toBeUndefined();
  });

  it('two generators on one port meet, and the inverter that follows one of them brings them in no step', () => {
    const facts = factsOf(
      compile(
        designOf((d) => {
          withSet(d);
          withSet(d);
          Object.assign(d.generators[1] ?? {}, { id: 'g2', name: 'Other set' });
        }),
        SAMPLE_TYPES,
      ),
      'generator-port',
    );
    expect(facts.clashes.map(({ sources }) => [...sources].sort())).toEqual([
      ['generator g1', 'generator g2'],
    ]);
  });

  it.each(['on-grid', 'island'])('sound designs have no clash and no back-feed %s', (mode) => {
    const facts = factsOf(
      compile(
        designOf((d) => threePhase(d, [2, 2, 2])),
        SAMPLE_TYPES,
      ),
      mode,
    );
    expect([facts.clashes, facts.backFeed]).toEqual([[], undefined]);
  });

  it('two sets that follow the same grid do not clash on it', () => {
    const design = designOf((d) => void d.stacks.push({ ...stack1(d), id: 't', name: 'Second' }));
    expect(factsOf(compile(design, SAMPLE_TYPES), 'on-grid').clashes).toEqual([]);
  });

  // The second set stays as in island: it feeds its own board, with one bond of its own, parted from the service board.
  it.each<[string, (design: Design) => void]>([
    ['generator-port', (d) => withSet(d)],
    ['transfer-switch', (d) => withSwitchedSet(d, 'switched')],
  ])('a set that the generator does not feed makes its island meanwhile: %s', (mode, addSet) => {
    const installation = compile(
      designOf((d) => {
        d.stacks.push({ ...stack1(d), id: 't', name: 'Second' });
        d.partitions.push(
          { id: 'b2', name: 'Second board', kind: 'backup', stackId: 't' },
          { id: 'w2', name: 'Waits for a generator', kind: 'generator-only', stackId: 't' },
        );
        addSet(d);
      }),
      SAMPLE_TYPES,
    );
    const facts = factsOf(installation, mode);
    expect([facts.clashes, facts.backFeed]).toEqual([[], undefined]);
    const second = facts.neutrals.find(({ boards }) => boards.includes('board b2'));
    expect([second?.bonds, second?.perhaps]).toEqual([['relay t'], []]);
    expect(facts.live.find(({ partId }) => partId === 'board b2')?.sources).toEqual(['unit t/u1']);
    expect(facts.live.find(({ partId }) => partId === 'board b')?.sources).toContain('generator g1');
    expect(facts.dark).toContain('board w2');
  });

  it('a unit that is lost makes nothing live; the others carry on', () => {
    const installation = compile(
      designOf((d) => threePhase(d, [2, 1, 1])),
      SAMPLE_TYPES,
    );
    const facts = factsOf(installation, 'unit-lost:s/L1-1');
    expect(facts.running).not.toContain('unit s/L1-1');
    expect(facts.live.find(({ partId }) => partId === 'board b')?.sources).toHaveLength(3);
  });

  it('a site without a grid has no mode on it and no grid terminals', () => {
    const installation = compile(
      designOf((d) => void (d.site.grid = 'none')),
      SAMPLE_TYPES,
    );
    expect(modesOf(installation).map(({ id }) => id)).toEqual(['island']);
    expect(factsOf(installation, 'island').backFeed).toBeUndefined();
  });
});
