import type { Design } from '../../design/schema.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { closedLoop } from '../../testkit/wired.ts';
import { bank1 } from '../../testkit/designs.ts';
import { bankComms } from './bankComms.ts';

/** Where the four modules of the bus stand, as [pile, level], in the order in which it passes them. */
type Piled = readonly [
  name: string,
  stands: readonly (readonly [pile?: number, level?: number])[],
  rule: 'same-way' | 'mirrored' | undefined,
  state: 'within' | 'over' | 'unknown',
  says: string,
];

const UP_UP = [
  [1, 1],
  [1, 2],
  [2, 1],
  [2, 2],
] as const;
const UP_DOWN = [
  [1, 1],
  [1, 2],
  [2, 2],
  [2, 1],
] as const;

const PILES: readonly Piled[] = [
  ['up, and back down, as its type wants', UP_DOWN, 'mirrored', 'within', 'passes 4 modules'],
  [
    'up in both where the next is mirrored',
    UP_UP,
    'mirrored',
    'over',
    'in pile 2 the bus runs the same way as in the pile before',
  ],
  ['up in both, as its type wants', UP_UP, 'same-way', 'within', 'passes 4 modules'],
  [
    'back down where both run the same way',
    UP_DOWN,
    'same-way',
    'over',
    'in pile 2 the bus runs the other way',
  ],
  [
    'a pile left and come back to',
    [
      [1, 1],
      [2, 1],
      [1, 2],
      [2, 2],
    ],
    'same-way',
    'over',
    'comes back to pile 1 at module 3',
  ],
  [
    'a level passed by',
    [
      [1, 1],
      [1, 3],
      [2, 1],
      [2, 2],
    ],
    'same-way',
    'over',
    'in pile 1 the bus does not pass level after level',
  ],
  [
    'all in one pile: any way',
    [
      [1, 2],
      [1, 1],
      [1, 4],
      [1, 3],
    ],
    undefined,
    'within',
    'passes 4 modules',
  ],
  ['a type that does not say', UP_UP, undefined, 'unknown', 'types/own/commsChain/piles'],
  [
    'a pile that is said of one module alone',
    [[1, 1], [], [], []],
    'same-way',
    'unknown',
    'stacks/s/bank/modules/m2/pile',
  ],
  [
    'a level that nobody has said',
    [[1, 1], [1, 2], [2], [2, 2]],
    'same-way',
    'unknown',
    'stacks/s/bank/modules/m3/level',
  ],
];

checkTable(bankComms, [
  { name: 'not said', state: 'unknown', missing: 'stacks/s/bank/comms' },
  {
    name: 'one line from the inverter',
    edit: closedLoop,
    state: 'within',
    says: 'passes 4 modules in one line',
  },
  {
    name: 'the first cable in a wrong port of the inverter',
    edit: (d) => {
      closedLoop(d);
      const first = bank1(d).comms?.links[0];
      if (first !== undefined) first.fromPort = 'MTR';
    },
    state: 'over',
    says: 'in MTR, where BAT is meant',
  },
  {
    name: 'the last module not joined',
    edit: (d) => {
      closedLoop(d);
      bank1(d).comms?.links.pop();
    },
    state: 'over',
    says: 'does not reach module 4',
  },
  {
    name: 'a module that is taken out is not missed',
    edit: (d) => {
      closedLoop(d);
      bank1(d).comms?.links.pop();
      const last = bank1(d).modules[3];
      if (last !== undefined) last.fitted = 'taken-out';
    },
    state: 'within',
    says: 'passes 3 modules',
  },
  {
    name: 'a branch',
    edit: (d) => {
      closedLoop(d);
      bank1(d).comms?.links.splice(2, 1, { id: 'x', from: 'm1', fromPort: 'DOWN', to: 'm3', toPort: 'UP' });
    },
    state: 'over',
    says: 'more than one cable leaves module 1',
  },
  {
    name: 'an open loop has no bus',
    edit: (d) => void (bank1(d).comms = { loop: 'open', links: [] }),
    state: 'nothing',
  },
  ...PILES.map(([name, stands, rule, state, says]) => ({
    name: `piles: ${name}`,
    edit: (d: Design) => {
      closedLoop(d);
      bank1(d).modules.forEach((module, index) => {
        const [pile, level] = stands[index] ?? [];
        Object.assign(module, pile === undefined ? {} : { pile }, level === undefined ? {} : { level });
      });
      const chain = {
        hostPort: 'UP',
        fromPort: 'DOWN',
        toPort: 'UP',
        ...(rule === undefined ? {} : { piles: rule }),
      };
      const type = variantOf('battery', 'lfp-51v-100ah', { id: 'own', commsChain: chain });
      d.types.push(type);
      bank1(d).batteryTypeId = 'own';
    },
    state,
    ...(state === 'unknown' ? { missing: says } : { says }),
  })),
]);
