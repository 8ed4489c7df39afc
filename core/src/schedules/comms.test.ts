import { expect, it } from 'vitest';
import { bank1 } from '../testkit/designs.ts';
import { rowsOf } from '../testkit/schedules.ts';
import type { Row } from './table.ts';

it('comms begin at the hardest end', () => {
  const rows = rowsOf('comms', (d) => {
    d.instruments.push({ id: 'm', kind: 'meter', typeId: 'meter-1ph-direct', at: 'service', readBy: 's' });
    bank1(d).comms = {
      loop: 'closed',
      links: [{ id: 'l1', from: 'host', fromPort: 'BAT', to: 'm1', toPort: 'UP' }],
    };
  });
  expect(rows.map(({ cells }) => [cells.order, cells.kind])).toEqual([
    [1, 'meter bus'],
    [2, 'battery bus'],
  ]);
});

it('the leads of sensors go to the marks of the meter that they are wired to, and are crimped to nothing', () => {
  const wired = (meterId: string | undefined): readonly Row[] =>
    rowsOf('comms', (d) => {
      d.instruments.push({ id: 'm', kind: 'meter', typeId: 'meter-3ph-sensors', at: 'service', readBy: 's' });
      for (const id of ['a', 'b'])
        d.instruments.push({
          id,
          kind: 'sensor',
          typeId: 'sensor-100a',
          at: 'service',
          line: 'L1',
          readBy: 's',
          ...(meterId === undefined ? {} : { meterId }),
        });
    }).filter(({ cells }) => cells.kind === 'sensor pair');
  expect(wired('m').map(({ cells }) => cells.fromSocket)).toEqual(['sensor 11 12', 'sensor 11 12']);
  expect(wired(undefined).map(({ cells }) => cells.from)).toEqual(['unit 1', 'unit 1']);
  for (const { cells } of [...wired('m'), ...wired(undefined)]) expect(cells.note).toBe('at most 15 m');
});

it.each([
  ['polarity', { polarity: 'swapped' }, 'over', '+ is landed on −'],
  ['pairs', { pairs: 'bunched' }, 'over', 'cores of several pairs are bunched'],
  ['a shield at both ends', { shield: 'both-ends' }, 'tight', 'lift it at one'],
  ['a shield nowhere', { shield: 'neither' }, 'tight', 'earth it at the reader'],
  ['all as planned', {}, undefined, 'at most 100 m'],
] as const)('a bus made with a fault says so in its row: %s', (_, over, state, note) => {
  const [row] = rowsOf('comms', (d) => {
    d.instruments.push({ id: 'm', kind: 'meter', typeId: 'meter-3ph-sensors', at: 'service', readBy: 's' });
    d.wiring = { links: [{ id: 'k', linkId: 'unit s/u1 – instrument m', ...over }] };
  });
  expect(row?.state).toBe(state);
  expect(row?.cells.note).toContain(note);
});
