import { leadSizeWords } from '../codes/leadSizes.ts';
import { conductorColour } from '../codes/conductorColour.ts';
import type { CableLine } from '../figures/wiring/cableLine.ts';
import { conductorM } from '../figures/wiring/conductorLength.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import type { Installation } from '../installation/installation.ts';
import type { Remnant } from '../installation/facts.ts';
import { type CutPlan, cutPlan, type Piece } from '../sizing/cutting.ts';
import { counted, formatNumber } from '../words/quantity.ts';
import { groupBy } from '../values/groupBy.ts';
import type { Column, Row, Schedule } from './table.ts';
import { conductorMm2, plannedMm2 } from './terminations.ts';
import { makeOf } from './van.ts';

type Key = 'conductor' | 'from' | 'length' | 'cuts' | 'left';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'conductor', title: 'Conductor' },
  { key: 'from', title: 'Cut from' },
  { key: 'length', title: 'Its length', unit: 'm' },
  { key: 'cuts', title: 'Pieces' },
  { key: 'left', title: 'Left', unit: 'm' },
];

type TotalKey = 'conductor' | 'pieces' | 'needed' | 'van' | 'buy' | 'stock' | 'least' | 'left';

const TOTAL_COLUMNS: readonly Column<TotalKey>[] = [
  { key: 'conductor', title: 'Conductor' },
  { key: 'pieces', title: 'Pieces' },
  { key: 'needed', title: 'In all', unit: 'm' },
  { key: 'van', title: 'Out of the van', unit: 'm' },
  { key: 'buy', title: 'Lengths to buy' },
  { key: 'stock', title: 'Each', unit: 'm' },
  { key: 'least', title: 'No plan buys fewer than' },
  { key: 'left', title: 'Left over', unit: 'm' },
];

/** Length in which conductors are bought where nobody has said it, m. */
const PLANNED_STOCK_M = 100;

/** What pieces can be cut from the same length. */
interface Kind {
  readonly make: Remnant['make'];
  readonly areaMm2: number;
  readonly cores: number | undefined;
  readonly colour: string | undefined;
}

const wordsOf = ({ make, areaMm2, cores, colour }: Kind): string =>
  make === 'cable'
    ? `cable of ${cores ?? 0} cores, ${leadSizeWords(areaMm2)}`
    : `${make === 'flexible' ? 'flexible lead' : 'single core'}, ${leadSizeWords(areaMm2)}${colour === undefined ? '' : `, ${colour}`}`;

interface Wanted {
  readonly kind: Kind;
  readonly piece: Piece;
}

/** The pieces of one cable: one of several cores for a circuit, else each conductor by itself. */
function piecesOf(installation: Installation, line: CableLine): Wanted[] {
  const cut = conductorM(installation, line);
  // A length of nought is no cable, whatever is left at its ends.
  if (!cut.known || !line.lengthM.known || line.lengthM.value === 0) return [];
  const lengthM = cut.value;
  const parallel = line.cable?.parallel ?? 1;
  const piece = (name: string): Piece => ({
    id: name === '' ? line.label : `${line.label}, ${name}`,
    lengthM,
  });
  if (line.circuit !== undefined) {
    const areaMm2 = plannedMm2(installation, line);
    return areaMm2 === undefined
      ? []
      : [{ kind: { make: 'cable', areaMm2, cores: line.names.length, colour: undefined }, piece: piece('') }];
  }
  const make = makeOf(line);
  return line.names.flatMap((name) => {
    const areaMm2 = conductorMm2(installation, line, name);
    if (areaMm2 === undefined) return [];
    const kind = {
      make,
      areaMm2,
      cores: undefined,
      colour: conductorColour(installation.site.codeProfile, name),
    } as const;
    return Array.from({ length: name === 'PE' ? 1 : parallel }, () => ({ kind, piece: piece(name) }));
  });
}

const isOf = (kind: Kind, remnant: Remnant): boolean =>
  remnant.make === kind.make &&
  Math.abs(remnant.areaMm2 - kind.areaMm2) <= kind.areaMm2 * 0.02 &&
  (kind.make === 'cable'
    ? remnant.cores === kind.cores
    : remnant.colour === undefined || remnant.colour === kind.colour);

/** Lengths of the van that are still whole: a piece that one kind has taken is not there for the next. */
class Van {
  private readonly free: { readonly id: string; readonly remnant: Remnant }[];

  constructor(remnants: readonly Remnant[]) {
    this.free = remnants.flatMap((remnant) =>
      Array.from({ length: remnant.pieces ?? 1 }, (_, at) => ({ id: `${remnant.id} ${at + 1}`, remnant })),
    );
  }

  atHand(kind: Kind): { id: string; lengthM: number }[] {
    return this.free
      .filter(({ remnant }) => isOf(kind, remnant))
      .map(({ id, remnant }) => ({ id, lengthM: remnant.lengthM }));
  }

  /** What nothing was cut from, in words. */
  leftWhole(): string[] {
    return this.free.map(
      ({ remnant }) =>
        `${wordsOf({ ...remnant, cores: remnant.cores, colour: remnant.colour })}, ${formatNumber(remnant.lengthM)} m`,
    );
  }

  take(ids: ReadonlySet<string | undefined>): void {
    for (let at = this.free.length - 1; at >= 0; at -= 1)
      if (ids.has(this.free[at]?.id)) this.free.splice(at, 1);
  }
}

/** Pieces in words: those alike together. */
function piecesWords(pieces: readonly Piece[]): string {
  const alike = groupBy(pieces, ({ lengthM }) => lengthM);
  return [...alike]
    .sort(([a], [b]) => b - a)
    .map(
      ([lengthM, some]) =>
        `${some.length > 1 ? `${some.length} × ` : ''}${formatNumber(lengthM)} m: ${some.map(({ id }) => id).join('; ')}`,
    )
    .join(' | ');
}

const sumOf = (lengths: readonly number[]): number =>
  Number(lengths.reduce((sum, one) => sum + one, 0).toFixed(3));

/** The length in which a conductor is bought: as said of its size, of all sizes, or planned, m. */
const stockOf = ({ wiring }: Installation, areaMm2: number): number =>
  wiring?.stock?.find((one) => one.areaMm2 === areaMm2)?.lengthM ??
  wiring?.stock?.find((one) => one.areaMm2 === undefined)?.lengthM ??
  PLANNED_STOCK_M;

const cutRows = (words: string, { cuts, tooLong }: CutPlan): Row<Key>[] => [
  ...cuts.map((cut, at) => ({
    id: `${words} ${at + 1}`,
    partIds: [],
    cells: {
      conductor: words,
      from: cut.atHandId === undefined ? 'bought length' : 'from the van',
      length: cut.lengthM,
      cuts: piecesWords(cut.pieces),
      left: Number(cut.leftM.toFixed(3)),
    },
  })),
  ...tooLong.map((piece) => ({
    id: `${words} ${piece.id}`,
    partIds: [],
    state: 'over' as const,
    cells: {
      conductor: words,
      from: 'no length is long enough',
      length: null,
      cuts: piecesWords([piece]),
      left: null,
    },
  })),
];

function totalRow(
  words: string,
  wanted: readonly Wanted[],
  { cuts, tooLong, bought, leastBought }: CutPlan,
  stockM: number,
): Row<TotalKey> {
  const ofVan = cuts.filter(({ atHandId }) => atHandId !== undefined);
  return {
    id: words,
    partIds: [],
    ...(tooLong.length > 0 ? { state: 'over' as const } : {}),
    cells: {
      conductor: words,
      pieces: wanted.length,
      needed: sumOf(wanted.map(({ piece }) => piece.lengthM)),
      van: sumOf(ofVan.flatMap(({ pieces }) => pieces.map(({ lengthM }) => lengthM))),
      buy: bought,
      stock: stockM,
      least: leastBought,
      left: sumOf(cuts.map(({ leftM }) => leftM)),
    },
  };
}

/** What is cut from what, by size: the van first, as few bought lengths as can be, and the waste. */
export function cutSchedule(installation: Installation): Schedule<Key> {
  const found = cableLines(installation);
  const lines = found.known ? found.value : [];
  const wanted = lines.flatMap((line) => piecesOf(installation, line));
  const groups = groupBy(wanted, ({ kind }) => wordsOf(kind));
  const { wiring } = installation;
  const van = new Van(wiring?.remnants ?? []);
  const rows: Row<Key>[] = [];
  const totals: Row<TotalKey>[] = [];
  const notes: string[] = [];
  for (const [words, some] of [...groups].sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true }))) {
    const kind = some[0]?.kind;
    if (kind === undefined) continue;
    const stockM = stockOf(installation, kind.areaMm2);
    const plan = cutPlan(
      some.map(({ piece }) => piece),
      van.atHand(kind),
      stockM,
      wiring?.kerfM ?? 0,
    );
    van.take(new Set(plan.cuts.map(({ atHandId }) => atHandId)));
    rows.push(...cutRows(words, plan));
    totals.push(totalRow(words, some, plan, stockM));
  }
  const whole = van.leftWhole();
  if (whole.length > 0)
    notes.push(
      `Stays whole in the van, since nothing here is of its kind and short enough: ${whole.join('; ')}.`,
    );
  const open = lines.filter(
    (line) => !line.lengthM.known || plannedMm2(installation, line) === undefined,
  ).length;
  if (open > 0)
    notes.push(
      `${counted(open, 'cable')} ${open === 1 ? 'is' : 'are'} not in this list: length or size is not known.`,
    );
  return {
    kind: 'cuts',
    title: 'Cut list',
    columns: COLUMNS,
    rows,
    notes,
    totals: { kind: 'cuts', title: 'What to buy', columns: TOTAL_COLUMNS, rows: totals, notes: [] },
  };
}
