import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import { deliveryLines } from '../installation/delivery.ts';
import type { Installation } from '../installation/installation.ts';
import { groupBy } from '../values/groupBy.ts';
import { counted } from '../words/quantity.ts';
import { cutSchedule } from './cuts.ts';
import { partsOf } from './parts.ts';
import type { Column, Row, Schedule } from './table.ts';
import { terminationSchedule } from './terminations.ts';

type Key = 'group' | 'what' | 'count' | 'unit' | 'detail';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'group', title: 'Group' },
  { key: 'what', title: 'What' },
  { key: 'count', title: 'How many' },
  { key: 'unit', title: 'Unit' },
  { key: 'detail', title: 'Detail' },
];

type Line = Readonly<Record<Key, string | number>>;

/** Metres of each conductor beyond what the van covers, and in how many lengths they are bought. */
function conductorLines(installation: Installation): Line[] {
  const byKind = groupBy(cutSchedule(installation).rows, ({ cells }) => String(cells.conductor));
  return [...byKind].map(([what, rows]) => {
    const bought = rows.filter(({ cells }) => cells.from === 'bought length');
    const used = bought.map(({ cells }) => Number(cells.length) - Number(cells.left));
    const ofVan = rows.filter(({ cells }) => cells.from === 'from the van').length;
    return {
      group: 'conductors',
      what,
      count: Number(used.reduce((sum, one) => sum + one, 0).toFixed(2)),
      unit: 'm',
      detail: [
        ...(bought.length === 0 ? [] : [counted(bought.length, 'bought length')]),
        ...(ofVan === 0 ? [] : [`${counted(ofVan, 'length')} from the van beside it`]),
      ].join(', '),
    };
  });
}

/** Lugs and ferrules by size. */
function endLines(installation: Installation): Line[] {
  const rows = terminationSchedule(installation).rows.filter(
    ({ cells }) => cells.end !== null && cells.end !== 'bare' && cells.size !== null,
  );
  const alike = groupBy(rows, ({ cells }) => `${String(cells.end)} ${String(cells.size)}`);
  return [...alike].map(([what, some]) => ({
    group: 'ends',
    what: `${/^(ring|fork)/u.test(what) ? 'lug, ' : ''}${what}`,
    count: some.length,
    unit: 'pieces',
    detail: String(some[0]?.cells.tool ?? ''),
  }));
}

/** Everything that has to be there: equipment, conductors, ends, tools, protective equipment. */
export function partsSchedule(
  design: Design,
  catalogue: readonly EquipmentType[],
  installation: Installation,
): Schedule<Key> {
  const equipment = partsOf(design, catalogue).map(({ what, count }): Line => ({
    group: 'equipment',
    what,
    count,
    unit: 'pieces',
    detail: '',
  }));
  const kit = deliveryLines(design, catalogue)
    .filter(({ group }) => group === 'tools' || group === 'protection')
    .map(({ group, what, details }): Line => ({
      group,
      what,
      count: 1,
      unit: 'set',
      detail: details.join('; '),
    }));
  const lines = [...equipment, ...conductorLines(installation), ...endLines(installation), ...kit];
  return {
    kind: 'parts',
    title: 'Parts and tools',
    columns: COLUMNS,
    rows: lines.map((cells, at): Row<Key> => ({ id: `part ${at + 1}`, partIds: [], cells })),
    notes: [],
  };
}
