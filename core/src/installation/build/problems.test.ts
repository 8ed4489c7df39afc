import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Design } from '../../design/schema.ts';
import { bonded, variantOf } from '../../testkit/bonding.ts';
import { baseDesign, stack1 } from '../../testkit/designs.ts';
import { wholeNetwork } from '../circuitLines.ts';
import { compile } from '../compile.ts';

/** What cannot be as it is written, in the network as it is laid and in the whole one. */
function problems(edit: (design: Design) => void): readonly string[] {
  const design = baseDesign();
  bonded(design);
  design.earthPoints = [{ id: 'e1', name: 'Bar', joins: ['grid-earth', 'backed-up-earth', 'chassis'] }];
  edit(design);
  const installation = compile(design, SAMPLE_TYPES);
  const whole = wholeNetwork(installation);
  if (!installation.network.known || !whole.known) throw new Error('The base is laid.');
  const told = installation.network.value.problems.map(({ path, message }) => `${path.join('/')} ${message}`);
  expect(whole.value.problems.map(({ path, message }) => `${path.join('/')} ${message}`)).toEqual(told);
  return told;
}

it.each<readonly [string, (d: Design) => void, readonly string[]]>([
  ['a design that is whole', () => undefined, []],
  [
    'earths that are not there',
    (d) => {
      d.site.localElectrode = 'none';
      d.earthPoints = [{ id: 'e', name: 'Bar', joins: ['grid-earth', 'electrode', 'generator-frame'] }];
    },
    [
      'earthPoints/e/joins joins a local electrode, and there is none',
      'earthPoints/e/joins joins the frame of a generator, and there is none',
    ],
  ],
  [
    'an electrode that nobody has decided on',
    (d) => {
      Reflect.deleteProperty(d.site, 'localElectrode');
      d.earthPoints = [{ id: 'e', name: 'Bar', joins: ['electrode'] }];
    },
    [],
  ],
  [
    'a board that nothing feeds',
    (d) => d.partitions.push({ id: 'x', name: 'Annex', kind: 'backup' }),
    ['partitions/x nothing that could feed Annex is joined to it'],
  ],
  [
    'two conductors on a terminal for one',
    (d) => {
      d.types.push(
        variantOf('combiner-bar', 'bar-400a-8', {
          terminals: [{ port: 'bar', minMm2: 16, maxMm2: 95, mostConductors: 4 }],
        }),
      );
      const { bank } = stack1(d);
      if (typeof bank === 'object') bank.barTypeId = 'bar-400a-8-own';
    },
    ['stacks/s/bank/lead brings 5 conductors onto one terminal of battery bars, whose type takes 4'],
  ],
])('%s', (_, edit, wanted) => expect(problems(edit)).toEqual(wanted));
