import { isAtLeastMm2 } from '../codes/leadSizes.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import { passageFigure, type PassageFigure } from '../figures/wiring/passages.ts';
import type { Splice } from '../installation/facts.ts';
import type { Installation } from '../installation/installation.ts';
import type { CableLine } from '../figures/wiring/cableLine.ts';
import type { Column, Row, RowState, Schedule } from './table.ts';

type Key = 'what' | 'name' | 'cables' | 'inside' | 'fill' | 'limit' | 'into' | 'place';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'what', title: 'Fitting' },
  { key: 'name', title: 'Name' },
  { key: 'cables', title: 'Cables' },
  { key: 'inside', title: 'Inside or range' },
  { key: 'fill', title: 'Filled', unit: '%' },
  { key: 'limit', title: 'May be filled', unit: '%' },
  { key: 'into', title: 'Into' },
  { key: 'place', title: 'Place and enclosure' },
];

const percent = (share: number): number => Number((share * 100).toFixed(1));

const within = (isWithin: boolean): RowState => (isWithin ? 'within' : 'over');

const conduitState = ({ fill, fillLimit }: PassageFigure): RowState =>
  fill.known && fillLimit.known ? within(fill.value <= fillLimit.value + 1e-9) : 'unknown';

/** A gland seals on the thickest and on the thinnest that goes through it. */
function glandState({ passage, lines, thickestMm, thinnestMm }: PassageFigure): RowState {
  const { innerMm, leastMm = 0 } = passage;
  if (innerMm === undefined || lines.length === 0 || !thickestMm.known || !thinnestMm.known) return 'unknown';
  return within(thickestMm.value <= innerMm && thinnestMm.value >= leastMm);
}

/** What a splice takes against the conductor that it is in. */
function spliceState({ minMm2, maxMm2 }: Splice, line: CableLine | undefined): RowState {
  if (minMm2 === undefined || maxMm2 === undefined || line?.areaMm2.known !== true) return 'unknown';
  return within(isAtLeastMm2(maxMm2, line.areaMm2.value) && isAtLeastMm2(line.areaMm2.value, minMm2));
}

function passageRow(figure: PassageFigure, labels: ReadonlyMap<string, string>): Row<Key> {
  const { passage, lines, stray, fill, fillLimit } = figure;
  const isConduit = passage.kind === 'conduit';
  const { innerMm, leastMm } = passage;
  return {
    id: `passage ${passage.id}`,
    partIds: lines.flatMap(({ ends }) => ends.map(({ partId }) => partId)),
    state: isConduit ? conduitState(figure) : glandState(figure),
    cells: {
      what: passage.kind,
      name: passage.name,
      cables: [...lines.map(({ label }) => label), ...stray.map((id) => `${id}, which is not there`)].join(
        '; ',
      ),
      inside:
        innerMm === undefined
          ? null
          : isConduit
            ? `${innerMm} mm`
            : `${leastMm === undefined ? 'up to' : `${leastMm} to`} ${innerMm} mm`,
      fill: isConduit ? (fill.known ? percent(fill.value) : null) : '',
      limit: isConduit ? (fillLimit.known ? percent(fillLimit.value) : null) : '',
      into:
        passage.intoId === undefined
          ? ''
          : `${labels.get(passage.intoId) ?? passage.intoId}${passage.side === undefined ? '' : `, ${passage.side}`}`,
      place: passage.threadMm === undefined ? '' : `hole of ${passage.threadMm} mm`,
    },
  };
}

function spliceRow(splice: Splice, line: CableLine | undefined): Row<Key> {
  const { minMm2, maxMm2 } = splice;
  return {
    id: `splice ${splice.id}`,
    partIds: line?.ends.map(({ partId }) => partId) ?? [],
    state: spliceState(splice, line),
    cells: {
      what: splice.kind,
      name: '',
      cables: line?.label ?? `${splice.lineId}, which is not there`,
      inside: minMm2 === undefined || maxMm2 === undefined ? null : `${minMm2} to ${maxMm2} mm²`,
      fill: '',
      limit: '',
      into: '',
      place: [splice.stands, splice.enclosure].filter((one) => one !== undefined).join(', ') || null,
    },
  };
}

/** Conduits, glands, splices, taps and lugs, with what goes through them. */
export function fittingSchedule(installation: Installation): Schedule<Key> {
  const lines = cableLines(installation);
  const byId = new Map(lines.known ? lines.value.map((line) => [line.id, line]) : []);
  const labels = new Map(
    installation.network.known ? installation.network.value.parts.map(({ id, label }) => [id, label]) : [],
  );
  const { passages = [], splices = [] } = installation.wiring ?? {};
  return {
    kind: 'fittings',
    title: 'Conduits, glands and splices',
    columns: COLUMNS,
    rows: [
      ...passages.map((one) => passageRow(passageFigure(installation, byId, one), labels)),
      ...splices.map((one) => spliceRow(one, byId.get(one.lineId))),
    ],
    notes:
      passages.length + splices.length === 0
        ? ['None is listed: add the conduits, glands and splices that the cables go through.']
        : [
            'A cable in a sheath counts by its outside diameter, single cores by the planning areas of their insulation.',
          ],
  };
}
