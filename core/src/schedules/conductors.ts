import { isAtLeastMm2, leadSizeWords, thickestWords } from '../codes/leadSizes.ts';
import type { CodeProfileName } from '../codes/profile.ts';
import type { CableLine } from '../figures/wiring/cableLine.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import type { Remnant } from '../installation/facts.ts';
import type { Installation } from '../installation/installation.ts';
import { tableValueLabel } from '../codes/tableValues.ts';
import { leastEarthing } from '../sizing/earthLines.ts';
import { judgeEarth } from '../sizing/judgeEarth.ts';
import type { ProtectiveAnswer } from '../sizing/protective.ts';
import { hasGuard } from '../sizing/askLine.ts';
import { ownValues, tableValueWords } from '../sizing/judgeSize.ts';
import type { SizeAnswer, SizeTest } from '../sizing/question.ts';
import type { Smallest } from '../sizing/smallestSize.ts';
import { type SizedLine, sizeLine } from '../sizing/sizeLine.ts';
import type { Known } from '../values/known.ts';
import { describePlaces } from '../words/places.ts';
import { formatNumber } from '../words/quantity.ts';
import { conductorVerdict, TEST_TITLES } from './conductorVerdict.ts';
import { overridesOf } from './overrides.ts';
import { vanWords } from './van.ts';
import type { Cell, Column, Row, RowState, Schedule } from './table.ts';

type Key =
  | 'cable'
  | 'conductors'
  | 'load'
  | 'because'
  | 'device'
  | 'laid'
  | 'smallest'
  | 'governs'
  | 'size'
  | 'length'
  | 'drop'
  | 'protective'
  | 'verdict'
  | 'override'
  | 'van';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'cable', title: 'Cable' },
  { key: 'conductors', title: 'Conductors' },
  { key: 'load', title: 'Load', unit: 'A' },
  { key: 'device', title: 'Device' },
  { key: 'smallest', title: 'Smallest' },
  { key: 'governs', title: 'Governed by' },
  { key: 'size', title: 'Size' },
  { key: 'length', title: 'Length', unit: 'm' },
  { key: 'drop', title: 'Drop', unit: '%' },
  { key: 'protective', title: 'Protective' },
  { key: 'verdict', title: 'Verdict' },
  { key: 'override', title: 'Overridden' },
  { key: 'van', title: 'In the van' },
  { key: 'laid', title: 'Laid' },
  { key: 'because', title: 'Where the load comes from' },
];

/** The smallest size in words. */
export function smallestWords(smallest: Smallest, profile: CodeProfileName): string {
  switch (smallest.kind) {
    case 'found':
      return leadSizeWords(smallest.areaMm2);
    case 'too thick for its terminals':
      return `${leadSizeWords(smallest.areaMm2)}, and its terminals take ${thickestWords(profile, smallest.mostMm2)}`;
    case 'none':
      return 'none in the table';
  }
}

function deviceWords({ deviceA, plannedDeviceA, device, line }: SizedLine): string {
  if (deviceA !== undefined) return `${formatNumber(deviceA)} A${device?.isFuse === true ? ' fuse' : ''}`;
  if (!hasGuard(line)) return 'none here';
  return plannedDeviceA === undefined ? 'none large enough' : `${plannedDeviceA} A planned`;
}

export function laidWords({ laidAs, question }: Pick<SizedLine, 'laidAs' | 'question'>): string {
  const { laid, parallel, terminalColumn, conduit } = laidAs;
  const isMetric = question.profile === 'metric';
  return [
    laid.insulation.replace(/^(\d+)C$/, '$1 °C'),
    isMetric ? `method ${laid.method}` : `terminals ${terminalColumn.replace('C', ' °C')}`,
    `${formatNumber(laid.ambientC)} °C`,
    isMetric
      ? laid.grouped === 1
        ? 'by itself'
        : `${laid.grouped} bunched`
      : `${laid.grouped} in the raceway`,
    ...(conduit === undefined ? [] : [`as ${conduit} is filled`]),
    ...(parallel === 1 ? [] : [`${parallel} in parallel`]),
    ...(laid.neutralCounts ? ['loaded neutral'] : []),
  ].join(', ');
}

const answerOf = (sized: SizedLine, test: SizeTest): SizeAnswer | undefined =>
  (sized.chosen?.answers ?? (sized.smallest.kind === 'found' ? sized.smallest.answers : [])).find(
    (answer) => answer.test === test,
  );

const known = <T extends Cell>(value: Known<T>): Cell => (value.known ? value.value : null);
const sizeCell = ({ areaMm2 }: CableLine): Cell => (areaMm2.known ? leadSizeWords(areaMm2.value) : null);

const percent = (share: number | undefined): Cell =>
  share === undefined ? null : Number((share * 100).toFixed(2));

const NOTHING = {
  load: null,
  because: null,
  device: null,
  laid: null,
  smallest: null,
  governs: null,
  drop: null,
  protective: null,
  van: null,
} as const;

/** Rows of cables that are sized as they were: the same objects, so that what shows them knows that nothing changed. */
const rowsLast = new WeakMap<
  SizedLine,
  { readonly override: string; readonly van: readonly Remnant[] | undefined; readonly row: Row<Key> }
>();

function rowOf(installation: Installation, line: CableLine): Row<Key> {
  const sized = sizeLine(installation, line);
  const override = overridesOf(installation).get(line.id) ?? '';
  const before = sized?.known === true ? rowsLast.get(sized.value) : undefined;
  const van = installation.wiring?.remnants;
  if (before?.override === override && before.van === van) return before.row;
  const row = madeRow(installation, line, sized, override);
  if (sized?.known === true) rowsLast.set(sized.value, { override, van, row });
  return row;
}

/** A conductor to an earthing bar or an electrode: what it has to be follows from the conductors of the service. */
function earthRow(
  installation: Installation,
  line: CableLine,
  { base, own }: { readonly base: Omit<Row<Key>, 'cells'>; readonly own: Pick<Row<Key>['cells'], OwnKey> },
): Row<Key> {
  const least = leastEarthing(installation);
  const cells = {
    ...NOTHING,
    ...own,
    load: '',
    because: 'carries nothing in service',
    device: 'none here',
    laid: '',
    drop: '',
    van: '',
  };
  if (!least.known)
    return {
      ...base,
      state: 'unknown',
      cells: { ...cells, verdict: `missing: ${describePlaces(installation, least.missing)}` },
    };
  const { leastMm2, working } = least.value;
  const { areaMm2 } = line;
  const isThin = areaMm2.known && !isAtLeastMm2(areaMm2.value, leastMm2);
  return {
    ...base,
    state: !areaMm2.known ? 'unknown' : isThin ? 'over' : 'within',
    cells: {
      ...cells,
      smallest: leadSizeWords(leastMm2),
      governs: 'earthing table',
      protective: '',
      verdict: !areaMm2.known ? 'no size chosen' : isThin ? `too thin, ${working}` : 'within',
    },
  };
}

function protectiveWords(earth: ProtectiveAnswer | undefined, tableMm2: number | undefined): string | null {
  if (tableMm2 === undefined) return null;
  if (earth === undefined) return leadSizeWords(tableMm2);
  return earth.state === 'over'
    ? `${leadSizeWords(earth.statedMm2)}: too thin`
    : leadSizeWords(earth.statedMm2);
}

const RANK: Readonly<Record<RowState, number>> = { over: 0, unknown: 1, tight: 2, within: 3 };
const worseOf = (a: RowState, b: RowState): RowState => (RANK[a] <= RANK[b] ? a : b);

type OwnKey = 'cable' | 'conductors' | 'size' | 'length' | 'override';

function madeRow(
  installation: Installation,
  line: CableLine,
  sized: Known<SizedLine> | undefined,
  override: string,
): Row<Key> {
  const own = {
    cable: line.label,
    conductors: line.names.join(' '),
    size: sizeCell(line),
    length: known(line.lengthM),
    override,
  };
  const base = {
    id: line.id,
    partIds: [
      ...line.ends.map(({ partId }) => partId),
      ...line.devices.flatMap(({ partId }) => partId ?? []),
    ],
    fields: { size: line.areaPath, length: line.lengthPath },
  };
  if (sized === undefined) return earthRow(installation, line, { base, own });
  if (!sized.known)
    return {
      ...base,
      state: 'unknown',
      cells: { ...NOTHING, ...own, verdict: `missing: ${describePlaces(installation, sized.missing)}` },
    };
  const { smallest, carried, protectiveMm2, chosen, question } = sized.value;
  const verdict = conductorVerdict(installation, sized.value);
  const areaMm2 = chosen?.areaMm2 ?? (smallest.kind === 'found' ? smallest.areaMm2 : undefined);
  const tableWords =
    areaMm2 === undefined
      ? []
      : ownValues(question, areaMm2).map((one) => `${tableValueLabel(one)}: ${tableValueWords(one)}`);
  const earth = judgeEarth(sized.value);
  const isEarthWrong = earth !== undefined && earth.state !== 'within';
  return {
    ...base,
    state: isEarthWrong ? worseOf(verdict.state, earth.state) : verdict.state,
    cells: {
      ...own,
      load: Number(carried.currentA.toFixed(1)),
      because: carried.because,
      device: deviceWords(sized.value),
      laid: laidWords(sized.value),
      smallest: smallestWords(smallest, question.profile),
      governs:
        smallest.kind === 'found' && smallest.governs !== undefined ? TEST_TITLES[smallest.governs] : '',
      drop: percent(answerOf(sized.value, 'drop')?.value),
      protective: line.names.includes('PE') ? protectiveWords(earth, protectiveMm2) : '',
      verdict: [
        ...(verdict.words === 'within' && isEarthWrong ? [] : [verdict.words]),
        ...(isEarthWrong ? [`earth: ${earth.working}`] : []),
      ].join('; '),
      van: vanWords(installation, sized.value),
      override: [own.override, ...tableWords].filter((words) => words !== '').join('; '),
    },
  };
}

/**
 * Every cable with its load, its device, the smallest size that passes and the size that is stated; or those looked at, while a large
 * job is worked out bit by bit.
 */
export function conductorSchedule(
  installation: Installation,
  looksAt: (line: CableLine) => boolean = () => true,
): Schedule<Key> {
  const lines = cableLines(installation);
  return {
    kind: 'conductors',
    title: 'Conductors',
    columns: COLUMNS,
    rows: lines.known ? lines.value.filter(looksAt).map((line) => rowOf(installation, line)) : [],
    notes: lines.known
      ? [...strayCables(installation, lines.value), ...unfedControls(installation)]
      : ['Nothing can be laid until the supply of the site is known.'],
  };
}

/** Controls of which nobody knows how they are fed have no cable here, and that is told. */
const unfedControls = ({ stacks }: Installation): string[] =>
  stacks.flatMap(({ stack, transferDevice }) => {
    const device = transferDevice.known ? transferDevice.value : 'none';
    return device !== 'none' && device.control === 'automatic' && device.controlSupply === undefined
      ? [
          `How the controls of the transfer device of ${stack.name} are fed is not known of its type: a cable of their own would be missing here.`,
        ]
      : [];
  });

/** What was said of cables that are no longer there. */
function strayCables({ wiring }: Installation, lines: readonly CableLine[]): string[] {
  const ids = new Set(lines.map(({ id }) => id));
  return (wiring?.cables ?? [])
    .filter(({ lineId }) => !ids.has(lineId))
    .map(({ lineId }) => `Something is stated of a cable that is not there any more: ${lineId}.`);
}
