import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { baseDesign, bank1, circuit1, deepFreeze, item1, stack1 } from '../testkit/designs.ts';
import { chooseSupply } from './chooseSupply.ts';
import { migrate, MIGRATIONS } from './migrate.ts';
import { formatPath } from '../values/problem.ts';
import { applyEdits } from './applyEdits.ts';
import { editSchema } from './edits.ts';
import { emptyDesign, readDesign, readDesignText, rereadDesign, rereadTouched } from './read.ts';
import { type Design, designSchema, FORMAT } from './schema.ts';
import { copyUsedTypes } from './usedTypes.ts';

const told = (value: unknown): string[] => {
  const read = readDesign(value, SAMPLE_TYPES);
  return read.ok ? [] : read.problems.map((problem) => `${formatPath(problem.path)} ${problem.message}`);
};
const broken = (recipe: (draft: Design) => void): Design => {
  const draft = baseDesign();
  recipe(draft);
  return draft;
};
const w = 'circuits[0].items[0].runningW';

describe('reading a design', () => {
  it('takes the base, and an empty one', () => {
    expect(told(baseDesign())).toEqual([]);
    expect(told(emptyDesign('New'))).toEqual([]);
  });

  it.each<{ name: string; edit: (d: Design) => void; says: string }>([
    {
      name: 'negative watts',
      edit: (d) => void (item1(d).runningW = -5),
      says: `${w} must be at least 0, but is -5`,
    },
    { name: 'NaN', edit: (d) => void (item1(d).runningW = NaN), says: `${w} is not a finite number` },
    {
      name: 'infinity',
      edit: (d) => void (item1(d).runningW = Infinity),
      says: `${w} is not a finite number`,
    },
    {
      name: 'text in a number',
      edit: (d) => void Object.assign(item1(d), { runningW: 'a lot' }),
      says: `${w} must be a number, but is "a lot"`,
    },
    {
      name: 'null in a number',
      edit: (d) => void Object.assign(item1(d), { runningW: null }),
      says: `${w} must be a number, but is null`,
    },
    {
      name: 'power factor over 1',
      edit: (d) => void (item1(d).powerFactor = 1.2),
      says: 'powerFactor must be at most 1, but is 1.2',
    },
    {
      name: 'power factor 0',
      edit: (d) => void (item1(d).powerFactor = 0),
      says: 'powerFactor must be more than 0, but is 0',
    },
    { name: 'half an item', edit: (d) => void (item1(d).quantity = 1.5), says: 'quantity' },
    {
      name: 'an unknown start class',
      edit: (d) => void Object.assign(item1(d), { startClass: 'rocket' }),
      says: 'must be one of "steady"',
    },
    { name: 'no modules', edit: (d) => void (bank1(d).modules = []), says: 'stacks[0].bank' },
    { name: 'state of charge over 1', edit: (d) => void (bank1(d).reserveSoc = 1.1), says: 'stacks[0].bank' },
    {
      name: 'a line the supply does not have',
      edit: (d) => void (circuit1(d).lines = ['L3']),
      says: 'circuits[0].lines[0] is L3, but a single-phase supply has only L1',
    },
    {
      name: 'a line twice',
      edit: (d) => void (circuit1(d).lines = ['L1', 'L1']),
      says: 'names a line twice',
    },
    {
      name: 'a type that is gone',
      edit: (d) => void (stack1(d).inverterTypeId = 'gone'),
      says: 'stacks[0].inverterTypeId names the type "gone", which is neither',
    },
    {
      name: 'a type of the wrong kind',
      edit: (d) => void (stack1(d).inverterTypeId = 'lfp-51v-100ah'),
      says: 'is a battery, where a inverter is needed',
    },
    {
      name: 'a partition that is not there',
      edit: (d) => void (circuit1(d).partitionId = 'x'),
      says: 'circuits[0].partitionId names the partition "x"',
    },
    {
      name: 'an id twice',
      edit: (d) => void d.circuits.push(circuit1(d)),
      says: 'circuits[1].id is "c1", which another entry',
    },
    {
      name: 'a field that is not of the format',
      edit: (d) => void Object.assign(d.site, { colour: 'red' }),
      says: 'site has a field this format does not know: "colour"',
    },
    {
      name: 'an override without a reason',
      edit: (d) => void d.defaults.push({ id: 'tightMargin', value: 0.2, reason: '' }),
      says: 'defaults[0].reason',
    },
  ])('refuses $name, with its place', ({ edit, says }) =>
    expect(told(broken(edit)).join('\n')).toContain(says),
  );

  it.each([
    { name: 'no JSON', text: '{', says: 'this is not JSON' },
    { name: 'a list', text: '[1]', says: 'not a design document' },
    { name: 'somebody else’s object', text: '{"a":1}', says: 'format' },
    { name: 'a later format', text: JSON.stringify({ ...baseDesign(), format: 99 }), says: 'newer version' },
    { name: 'half a format', text: JSON.stringify({ ...baseDesign(), format: 0.5 }), says: 'whole number' },
    { name: '50 million characters', text: ' '.repeat(50_000_000), says: '50 million characters' },
  ])('refuses $name in one sentence', ({ text, says }) => {
    const read = readDesignText(text, SAMPLE_TYPES);
    expect(
      read.ok ? '' : read.problems.map((problem) => `${formatPath(problem.path)} ${problem.message}`).join(),
    ).toContain(says);
  });
});

describe('migrations', () => {
  it('rise by one up to the format of today, each with a name of its own', () => {
    expect(MIGRATIONS.map((step) => step.from)).toEqual(
      Array.from({ length: FORMAT - 1 }, (_, index) => index + 1),
    );
    expect(new Set(MIGRATIONS.map((step) => step.name)).size).toBe(MIGRATIONS.length);
  });

  it('AddStartCasesMetersAndDelivery: a document of format 1 gets the three lists, empty', () => {
    const { startCases: _s, meters: _m, delivery: _d, ...before } = { ...baseDesign(), format: 1 };
    const read = readDesign(before, SAMPLE_TYPES);
    expect(read.ok ? read.value : read.problems).toEqual(baseDesign());
  });

  it('AddDevicesInstrumentsAndEarthPoints: a document of format 4 gets the lists, empty', () => {
    const { devices: _d, instruments: _i, earthPoints: _e, ...before } = baseDesign();
    const after = migrate({ ...before, format: 4 });
    expect(after.ok && after.value).toEqual({ ...baseDesign(), format: FORMAT });
    expect(told({ ...before, format: 4 })).toEqual([]);
  });

  it('SplitGeneratorCharging: a set on the generator port keeps the charging that was typed for both sides', () => {
    const { accepted: _a, ...before } = { ...baseDesign(), format: 5 };
    const [stack] = before.stacks;
    const other = { ...stack, id: 's2' };
    const port = { id: 'g', name: 'Set', connection: 'generator-port', stackId: 's' };
    const ahead = { id: 'h', name: 'Other', connection: 'transfer-switch', stackId: 's2' };
    const after = migrate({ ...before, stacks: [stack, other], generators: [port, ahead] });
    expect(after.ok && after.value).toMatchObject({
      format: FORMAT,
      accepted: [],
      stacks: [
        { id: 's', gridChargeW: 2000, generatorChargeW: 2000 },
        { id: 's2', gridChargeW: 2000 },
      ],
    });
    expect(JSON.stringify(after.ok && after.value)).not.toMatch(/"id":"s2"[^}]*generatorChargeW/);
  });

  it('AddControllers: a document of format 3 gets the list, empty', () => {
    const { controllers: _c, ...before } = { ...baseDesign(), format: 3 };
    const read = readDesign(before, SAMPLE_TYPES);
    expect(read.ok ? read.value : read.problems).toEqual(baseDesign());
  });

  it('run in order and stamp the format they lead to', () => {
    const steps = [
      { from: 1, name: 'AddColour', up: (d: object) => ({ ...d, colour: 'grey' }) },
      {
        from: 2,
        name: 'RenameColour',
        up: ({ colour, ...d }: Record<string, unknown>) => ({ ...d, ink: colour }),
      },
    ];
    expect(migrate({ format: 1, name: 'x' }, steps, 3)).toEqual({
      ok: true,
      value: { format: 3, name: 'x', ink: 'grey' },
    });
    expect(migrate({ format: 2, colour: 'red' }, steps, 3)).toEqual({
      ok: true,
      value: { format: 3, ink: 'red' },
    });
  });
});

describe('whole-design changes', () => {
  it('copies a type in when it is first used, once, and never overwrites a copy', () => {
    const copied = copyUsedTypes(baseDesign(), SAMPLE_TYPES);
    expect(copied.types.map((type) => type.id)).toEqual(['hybrid-5k-1ph', 'lfp-51v-100ah']);
    const changed = SAMPLE_TYPES.map((type) => ({ ...type, name: 'Changed' }));
    expect(copyUsedTypes(copied, changed)).toBe(copied);
  });

  it('takes away lines that a new supply does not have', () => {
    const three = broken((d) => {
      d.site.supply = 'three-phase';
      circuit1(d).lines = ['L3'];
    });
    const { design, lost } = chooseSupply(three, 'single-phase');
    expect(lost).toBe(1);
    expect(design.circuits[0]).not.toHaveProperty('lines');
    expect(told(design)).toEqual([]);
  });
});

describe('judging again only what changed', () => {
  const before = baseDesign();
  it.each<[string, (design: Design) => void]>([
    ['nothing', () => undefined],
    ['a good figure', (design) => void (item1(design).runningW = 900)],
    ['a figure that is not possible', (design) => void (item1(design).powerFactor = 1.4)],
    ['two circuits of one id', (design) => void design.circuits.push({ id: 'c1', name: 'again', items: [] })],
    ['a partition that is not there', (design) => void (circuit1(design).partitionId = 'nowhere')],
    ['a line that the supply does not have', (design) => void (circuit1(design).lines = ['L3'])],
    ['a wrong figure of the stack', (design) => void (stack1(design).chargeCurrentA = -1)],
  ])('finds for %s what reading all of it finds', (_, edit) => {
    const after = baseDesign();
    edit(after);
    const again = rereadDesign(before, after, SAMPLE_TYPES);
    const whole = readDesign(after, SAMPLE_TYPES);
    expect(again.ok ? [] : again.problems).toEqual(whole.ok ? [] : whole.problems);
  });

  it('does not look at circuits that are the same ones', () => {
    const after = { ...before, name: 'Other' };
    const reread = rereadDesign(before, after, SAMPLE_TYPES);
    expect(reread.ok && reread.value.circuits).toBe(before.circuits);
  });
});

describe('a batch judged on what it touches', () => {
  const before = deepFreeze(baseDesign());
  const value = fc.oneof(
    fc.constantFrom<unknown>('L1', 'L2', ['L1'], ['L3'], [], 'b', 'nowhere', 'yes', '', 'steady', null),
    fc.integer({ min: -3, max: 2000 }),
  );
  const set = fc
    .record({
      path: fc.constantFrom(
        ['circuits', 'c1', 'name'],
        ['circuits', 'c1', 'lines'],
        ['circuits', 'c1', 'partitionId'],
        ['circuits', 'c1', 'startDelayS'],
        ['circuits', 'c1', 'device'],
        ['circuits', 'c1', 'unheardOf'],
        ['circuits', 'c1', 'items', 'i1', 'runningW'],
        ['circuits', 'c1', 'items', 'i1', 'startClass'],
        ['circuits', 'c1', 'items', 'i1', 'quantity'],
        ['site', 'altitudeM'],
        ['site', 'supply'],
        ['stacks', 's', 'chargeCurrentA'],
      ),
      after: value,
    })
    .map((edit): unknown => ({ op: 'set', ...edit }));
  const insert = fc
    .record({ id: fc.constantFrom('i1', 'i2'), runningW: fc.integer({ min: -2, max: 50 }) })
    .map((entity): unknown => ({
      op: 'insert',
      path: ['circuits', 'c1', 'items', entity.id],
      follows: null,
      entity: { name: 'Item', ...entity },
    }));

  it('is judged as the whole would be, over random edits', () => {
    let refused = 0;
    fc.assert(
      fc.property(fc.array(fc.oneof(set, insert), { minLength: 1, maxLength: 3 }), (given) => {
        const edits = z.array(editSchema).parse(JSON.parse(JSON.stringify(given)));
        const applied = applyEdits(before, edits);
        if (!applied.ok) return;
        const after = applied.value as typeof before;
        const whole = readDesign(after, SAMPLE_TYPES);
        const touched = rereadTouched(before, after, edits, SAMPLE_TYPES);
        expect(touched.ok).toBe(whole.ok);
        if (!touched.ok && !whole.ok) {
          refused += 1;
          expect(touched.problems).toEqual(whole.problems);
        }
      }),
      { numRuns: 400, seed: 7 },
    );
    expect(refused).toBeGreaterThan(50);
  });
});

describe('a survey of many circuits', () => {
  /** The circuits of the base over and over, fully stated ones among them. */
  const many = (count: number): Design => ({
    ...baseDesign(),
    circuits: Array.from({ length: count }, (_, n) => ({
      ...circuit1(baseDesign()),
      id: `many-${n}`,
      ...(n % 3 === 0
        ? { lines: ['L1' as const], note: 'n', startDelayS: n, feedsRouter: 'yes' as const }
        : {}),
      ...(n % 4 === 0 ? { device: { ratedA: 16, curve: 'B' as const }, cable: { lengthM: n } } : {}),
    })),
  });

  it('is read to the same text by the parser that is made for circuits as by their rules', () => {
    const text = JSON.stringify(many(130));
    const read = readDesign(JSON.parse(text), SAMPLE_TYPES);
    expect(read.ok && JSON.stringify(read.value)).toBe(JSON.stringify(designSchema.parse(JSON.parse(text))));
  });

  it.each<{ name: string; spoil: (circuit: { [key: string]: unknown }) => void }>([
    {
      name: 'a field that nobody knows',
      spoil: (circuit) => {
        circuit.colour = 'red';
      },
    },
    {
      name: 'a field of a prototype',
      spoil: (circuit) => {
        circuit['__proto__x'] = 1;
      },
    },
    { name: 'a line twice', spoil: (circuit) => void (circuit.lines = ['L1', 'L1']) },
    {
      name: 'a number as text',
      spoil: (circuit) => {
        circuit.startDelayS = '5';
      },
    },
    {
      name: 'no name',
      spoil: (circuit) => {
        delete circuit.name;
      },
    },
    {
      name: 'no items',
      spoil: (circuit) => {
        delete circuit.items;
      },
    },
    {
      name: 'a name of nothing',
      spoil: (circuit) => {
        circuit.name = '';
      },
    },
    {
      name: 'null for what is not known',
      spoil: (circuit) => {
        circuit.note = null;
      },
    },
    {
      name: 'an id twice',
      spoil: (circuit) => {
        circuit.id = 'many-7';
      },
    },
    {
      name: 'NaN',
      spoil: (circuit) => {
        circuit.cable = { lengthM: NaN };
      },
    },
  ])('with $name in one of them is refused as a small one is', ({ spoil }) => {
    const [large, small] = [130, 20].map((count) => {
      const design = many(count);
      spoil(design.circuits[10] ?? {});
      return told(design);
    });
    expect(large).not.toEqual([]);
    expect(large).toEqual(small);
  });
});
