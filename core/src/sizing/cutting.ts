/** A length that is needed in one piece. */
export interface Piece {
  readonly id: string;
  readonly lengthM: number;
}

/** A length that is at hand. */
export interface AtHand {
  readonly id: string;
  readonly lengthM: number;
}

/** One length with what is cut from it. */
export interface Cut {
  /** The length at hand that it is; undefined for one that is bought. */
  readonly atHandId: string | undefined;
  readonly lengthM: number;
  readonly pieces: readonly Piece[];
  /** What is left of it, m. */
  readonly leftM: number;
}

/** How some pieces are cut. */
export interface CutPlan {
  readonly cuts: readonly Cut[];
  /** Pieces longer than every length there is. */
  readonly tooLong: readonly Piece[];
  /** Lengths that have to be bought. */
  readonly bought: number;
  /** No plan buys fewer than this. */
  readonly leastBought: number;
}

const MM = 1000;
/** Steps that a search may take before the best that it has found stands. */
const MOST_STEPS = 60_000;
/** Above this many pieces no search through all ways is begun: filling is as good as it gets. */
const MOST_SEARCHED = 60;

interface Bin {
  readonly atHandId: string | undefined;
  readonly mm: number;
  leftMm: number;
  readonly pieces: number[];
}

/** Everything in whole millimetres: pieces rounded up, lengths down. A cut costs its kerf beside each piece but the last. */
interface Problem {
  readonly pieces: readonly Piece[];
  readonly mm: readonly number[];
  readonly hand: readonly { readonly id: string; readonly mm: number }[];
  readonly stockMm: number;
}

const total = (list: readonly number[]): number => list.reduce((sum, one) => sum + one, 0);

/** The pieces (by place in `open`, longest first) that fill a length best. Bounded: the best of the steps it may take. */
function fillBest(open: readonly number[], mm: readonly number[], roomMm: number): number[] {
  let best: number[] = [];
  let bestMm = -1;
  let steps = 0;
  const taken: number[] = [];
  // From each place on, what all that follows comes to: no branch is followed that cannot beat the best.
  const rest = open.map(() => 0);
  for (let at = open.length - 1; at >= 0; at -= 1) rest[at] = (mm[open[at] ?? 0] ?? 0) + (rest[at + 1] ?? 0);
  const search = (from: number, usedMm: number): void => {
    if (usedMm > bestMm) {
      bestMm = usedMm;
      best = [...taken];
    }
    for (let at = from; at < open.length && steps < MOST_STEPS && bestMm < roomMm; at += 1) {
      if (usedMm + (rest[at] ?? 0) <= bestMm) return;
      const piece = open[at] ?? 0;
      const length = mm[piece] ?? 0;
      // Of two alike the second is tried only below the first.
      if (at > from && length === mm[open[at - 1] ?? 0]) continue;
      if (usedMm + length > roomMm) continue;
      steps += 1;
      taken.push(piece);
      search(at + 1, usedMm + length);
      taken.pop();
    }
  };
  search(0, 0);
  return best;
}

/** The same around a piece that is in it for certain. */
const fillAround = (
  piece: number,
  open: readonly number[],
  mm: readonly number[],
  roomMm: number,
): number[] => [
  piece,
  ...fillBest(
    open.filter((one) => one !== piece),
    mm,
    roomMm - (mm[piece] ?? 0),
  ),
];

/** Fills what is at hand, shortest first, then bought lengths, each as full as it gets around the longest piece left. */
function filled({ mm, hand, stockMm }: Problem): Bin[] {
  let open = mm.map((_, index) => index).sort((a, b) => (mm[b] ?? 0) - (mm[a] ?? 0));
  const bins: Bin[] = [];
  const take = (atHandId: string | undefined, lengthMm: number, pieces: number[]): void => {
    const used = total(pieces.map((one) => mm[one] ?? 0));
    bins.push({ atHandId, mm: lengthMm, leftMm: lengthMm - used, pieces });
    const gone = new Set(pieces);
    open = open.filter((one) => !gone.has(one));
  };
  const isOnlyAtHand = (piece: number): boolean => (mm[piece] ?? 0) > stockMm;
  // What no bought length can hold goes into the shortest length at hand that does.
  const free = [...hand].sort((a, b) => a.mm - b.mm);
  for (const piece of open.filter(isOnlyAtHand)) {
    const at = free.findIndex((one) => one.mm >= (mm[piece] ?? 0));
    const found = free[at];
    if (found === undefined) continue;
    free.splice(at, 1);
    take(
      found.id,
      found.mm,
      fillAround(
        piece,
        open.filter((one) => !isOnlyAtHand(one)),
        mm,
        found.mm,
      ),
    );
  }
  for (const one of free) {
    const pieces = fillBest(open, mm, one.mm);
    if (pieces.length > 0) take(one.id, one.mm, pieces);
  }
  for (let [longest] = open; longest !== undefined && (mm[longest] ?? 0) <= stockMm; [longest] = open)
    take(undefined, stockMm, fillAround(longest, open, mm, stockMm));
  return bins;
}

const boughtOf = (bins: readonly Bin[]): number =>
  bins.filter(({ atHandId }) => atHandId === undefined).length;

/** No plan buys fewer: what does not go into the lengths at hand, or pieces of which no two share a bought length. */
function leastBought({ mm, hand, stockMm }: Problem): number {
  const byLength = Math.ceil((total(mm) - total(hand.map((one) => one.mm))) / stockMm - 1e-9);
  const large = mm.filter((one) => one > stockMm / 2).length;
  const intoHand = hand.reduce((sum, one) => sum + Math.floor(one.mm / (stockMm / 2)), 0);
  return Math.max(0, byLength, large - intoHand);
}

/** Looks through all ways of a small list for one that buys less than the filled one. */
function searched(problem: Problem, start: readonly Bin[], least: number): readonly Bin[] {
  const { mm, hand, stockMm } = problem;
  if (mm.length > MOST_SEARCHED || boughtOf(start) <= least) return start;
  const order = mm.map((_, index) => index).sort((a, b) => (mm[b] ?? 0) - (mm[a] ?? 0));
  const bins: Bin[] = hand.map(({ id, mm: length }) => ({
    atHandId: id,
    mm: length,
    leftMm: length,
    pieces: [],
  }));
  let best: readonly Bin[] = start;
  let bestBought = boughtOf(start);
  let steps = 0;
  const place = (at: number, bought: number): void => {
    if (bought >= bestBought || bestBought <= least || steps > MOST_STEPS) return;
    const piece = order[at];
    if (piece === undefined) {
      best = bins.filter((bin) => bin.pieces.length > 0).map((bin) => ({ ...bin, pieces: [...bin.pieces] }));
      bestBought = bought;
      return;
    }
    const length = mm[piece] ?? 0;
    const tried = new Set<number>();
    for (const bin of bins) {
      // Two lengths with the same room are one choice.
      if (bin.leftMm < length || tried.has(bin.leftMm)) continue;
      tried.add(bin.leftMm);
      steps += 1;
      bin.leftMm -= length;
      bin.pieces.push(piece);
      place(at + 1, bought);
      bin.pieces.pop();
      bin.leftMm += length;
    }
    if (length > stockMm) return;
    bins.push({ atHandId: undefined, mm: stockMm, leftMm: stockMm - length, pieces: [piece] });
    place(at + 1, bought + 1);
    bins.pop();
  };
  place(0, 0);
  return best;
}

/**
 * Cuts pieces from what is at hand and from bought lengths so that as few as possible are bought: lengths are filled as full as they
 * get (minimum slack), and a list of up to sixty pieces is then searched for a better way. Beside it stands the number below which no
 * plan can go. Lengths in m; a cut loses `kerfM`.
 */
export function cutPlan(
  pieces: readonly Piece[],
  atHand: readonly AtHand[],
  stockM: number,
  kerfM = 0,
): CutPlan {
  const kerfMm = Math.round(kerfM * MM);
  const longestM = Math.max(stockM, ...atHand.map(({ lengthM }) => lengthM));
  const tooLong = pieces.filter(({ lengthM }) => lengthM > longestM);
  const fitting = pieces.filter(({ lengthM }) => lengthM <= longestM);
  const problem: Problem = {
    pieces: fitting,
    mm: fitting.map(({ lengthM }) => Math.ceil(lengthM * MM - 1e-6) + kerfMm),
    hand: atHand.map(({ id, lengthM }) => ({ id, mm: Math.floor(lengthM * MM + 1e-6) + kerfMm })),
    stockMm: Math.floor(stockM * MM + 1e-6) + kerfMm,
  };
  const least = leastBought(problem);
  const bins = searched(problem, filled(problem), least);
  const placed = new Set(bins.flatMap((bin) => bin.pieces));
  const isWhole = placed.size === fitting.length;
  return {
    cuts: bins.map(({ atHandId, mm, leftMm, pieces: inside }) => ({
      atHandId,
      lengthM: (mm - kerfMm) / MM,
      pieces: inside.flatMap((index) => fitting[index] ?? []),
      leftM: Math.max(0, leftMm - kerfMm) / MM,
    })),
    // A length at hand holds one piece that no bought one could; a second such piece has no place.
    tooLong: [...tooLong, ...fitting.filter((_, index) => !placed.has(index))],
    bought: boughtOf(bins),
    // Of what has no place nothing is bought.
    leastBought: isWhole
      ? least
      : leastBought({ ...problem, mm: problem.mm.filter((_, index) => placed.has(index)) }),
  };
}
