import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { baseDesign, deepFreeze } from '../testkit/designs.ts';
import { openFirstValues, valueAt, withFirstValues, withoutTouched } from './firstValues.ts';
import { withItemDefaults } from './itemDefaults.ts';
import { ITEM_LIBRARY } from './itemLibrary.ts';
import { libraryItem, WORDED_NAMES } from './itemWords.ts';
import { readDesign } from './read.ts';
import type { Design, Item } from './schema.ts';

const marks = (design: Design): string[] => openFirstValues(design).map((path) => path.join('/'));

describe('first values', () => {
  const base = deepFreeze(baseDesign());
  const filled = withFirstValues(base, [
    { path: ['site', 'altitudeM'], value: 900 },
    { path: ['site', 'prospectiveFaultA'], value: 6000 },
    { path: ['stacks', 's', 'units', 'u1', 'acLead'], value: { lengthM: 2, areaMm2: 10 } },
  ]);

  it('fills what nobody has stated, marks each field of it, and leaves what is stated', () => {
    expect(filled.site.altitudeM).toBe(100);
    expect(marks(filled)).toEqual([
      'site/prospectiveFaultA',
      'stacks/s/units/u1/acLead/lengthM',
      'stacks/s/units/u1/acLead/areaMm2',
    ]);
    expect(readDesign(filled, SAMPLE_TYPES).ok).toBe(true);
  });

  it.each([
    [
      'another figure takes its mark off',
      (d: Design) => ({ ...d, site: { ...d.site, prospectiveFaultA: 7000 } }),
      ['stacks/s/units/u1/acLead/lengthM', 'stacks/s/units/u1/acLead/areaMm2'],
    ],
    [
      'what is emptied has none',
      (d: Design) => ({ ...d, site: { ...d.site, prospectiveFaultA: undefined } }),
      ['stacks/s/units/u1/acLead/lengthM', 'stacks/s/units/u1/acLead/areaMm2'],
    ],
    ['what is gone has none', (d: Design) => ({ ...d, stacks: [] }), ['site/prospectiveFaultA']],
    ['a change elsewhere leaves them', (d: Design) => ({ ...d, name: 'Other' }), marks(filled)],
  ])('%s', (_name, change, left) => expect(marks(withoutTouched(filled, change(filled)))).toEqual(left));
});

describe('first values of what is typed into the survey', () => {
  const empty: Design = { ...baseDesign(), circuits: [{ id: 'c', name: 'C', lines: ['L1'], items: [] }] };
  const withItem = (design: Design, item: Item): Design => ({
    ...design,
    circuits: design.circuits.map((one) => ({ ...one, items: [item] })),
  });
  const item = (over: Partial<Item>): Item => ({ id: 'i', name: 'New item', quantity: 1, ...over });
  const only = (design: Design): Item => design.circuits[0]?.items[0] ?? item({});

  it.each<[string, Partial<Item>, Partial<Item>]>([
    [
      'a name of the library',
      { name: 'Kettle' },
      { runningW: 2000, powerFactor: 1, demandFactor: 0.2, hoursPerDay: 0.5, longestInterruptionMs: 60000 },
    ],
    [
      'a word that people use',
      { name: 'Kitchen fridge' },
      { powerFactor: 0.75, startClass: 'compressor', demandFactor: 0.5 },
    ],
    [
      'figures that are stated stay',
      { name: 'Fridge', runningW: 95, demandFactor: 1 },
      { runningW: 95, demandFactor: 1, powerFactor: 0.75 },
    ],
    [
      'a start class alone',
      { name: 'Thing 7', startClass: 'dol-3ph' },
      { powerFactor: 0.85, longestInterruptionMs: 30, demandFactor: 1 },
    ],
    [
      'another start class than the library has',
      { name: 'Fridge', startClass: 'soft-drive' },
      { powerFactor: 0.96, demandFactor: 1 },
    ],
    ['an unknown thing', { name: 'Thing 7' }, { demandFactor: 1 }],
  ])('%s', (_name, typed, expected) => {
    const next = withItemDefaults(empty, withItem(empty, item(typed)));
    const found = only(next);
    expect(found).toMatchObject(expected);
    if (expected.runningW === undefined) expect(found).not.toHaveProperty('runningW');
    // Everything that was not typed is marked, and nothing else.
    const given = new Set(['id', 'quantity', 'name', ...Object.keys(typed)]);
    expect(
      marks(next)
        .map((id) => id.split('/').at(-1))
        .sort(),
    ).toEqual(
      Object.keys(found)
        .filter((key) => !given.has(key))
        .sort(),
    );
  });

  it.each([
    ['Fridge', 120],
    ['lights', 60],
    ['Gas boiler', 90],
    // A thing of a kind, of a size that nobody has told.
    ['Operating lamp', undefined],
    ['Vaccine fridge', undefined],
    ['Electric boiler', undefined],
    ['Boiler', undefined],
  ])('%s has %s W', (name, runningW) =>
    expect(only(withItemDefaults(empty, withItem(empty, item({ name })))).runningW).toBe(runningW),
  );

  it('follows a new name only with what nobody has touched, and leaves the unreadable unknown', () => {
    const fridge = withItemDefaults(empty, withItem(empty, item({ name: 'Fridge' })));
    const own = withoutTouched(fridge, withItem(fridge, { ...only(fridge), powerFactor: 0.9 }));
    const kettle = withItemDefaults(own, withItem(own, { ...only(own), name: 'Kettle' }));
    expect(only(kettle)).toMatchObject({ runningW: 2000, startClass: 'steady', powerFactor: 0.9 });
    const unread = new Set(['circuits/c/items/i/runningW']);
    const left = only(withItemDefaults(empty, withItem(empty, item({ name: 'Fridge' })), unread));
    expect(left).not.toHaveProperty('runningW');
    expect(left).toMatchObject({ powerFactor: 0.75 });
  });

  it('names only things that the library has', () => {
    const names = new Set(ITEM_LIBRARY.flatMap(({ items }) => items.map(({ name }) => name)));
    expect(WORDED_NAMES.filter((name) => !names.has(name))).toEqual([]);
    expect(valueAt(empty, ['circuits', 'c', 'name'])).toBe('C');
    expect([libraryItem('Lights hall')?.item.name, libraryItem('Shed 3')]).toEqual([
      'LED lighting, one room',
      undefined,
    ]);
  });
});
