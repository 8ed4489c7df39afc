import type { BatteryType } from '../../catalogue/batteryType.ts';
import type { Bank } from '../../installation/facts.ts';
import { type Known, known, unknownAt } from '../../values/known.ts';
import { groupBy } from '../../values/groupBy.ts';
import type { Path } from '../../values/problem.ts';

type Module = Bank['modules'][number];

/** A module with where it stands. */
interface Stood {
  readonly id: string;
  readonly pile: number;
  readonly level: number;
}

/** 1 where a run goes up, −1 where it goes down, undefined where it turns or passes a level by. */
function wayOf(run: readonly Stood[]): 1 | -1 | undefined {
  const steps = run.slice(1).map(({ level }, at) => level - (run[at]?.level ?? level));
  if (steps.every((step) => step === 1)) return 1;
  return steps.every((step) => step === -1) ? -1 : undefined;
}

/**
 * Holds the order in which a bus passes modules against the piles that they stand in: pile by pile, level by level, and in the next
 * pile the way its type wants. Empty where nobody has said of any module where it stands, or where all stand in one pile.
 */
export function pileReasons(
  modules: readonly Module[],
  order: readonly string[],
  type: BatteryType,
  at: { readonly bank: Path; readonly nameOf: (id: string) => string },
): Known<readonly string[]> {
  const byId = new Map(modules.map((module) => [module.id, module]));
  const passed = order.flatMap((id) => byId.get(id) ?? []);
  const stated = passed.flatMap(({ pile }) => pile ?? []);
  if (stated.length === 0 || (stated.length === passed.length && new Set(stated).size === 1))
    return known([]);
  const missing = passed.flatMap(({ id, pile, level }): Path[] => [
    ...(pile === undefined ? [[...at.bank, 'modules', id, 'pile']] : []),
    ...(level === undefined ? [[...at.bank, 'modules', id, 'level']] : []),
  ]);
  const rule = type.commsChain?.piles;
  // While piles are missing nobody knows whether there are several.
  if (rule === undefined && new Set(stated).size > 1) missing.push(['types', type.id, 'commsChain', 'piles']);
  if (missing.length > 0) return unknownAt(...missing);
  const stood = passed.map(({ id, pile = 0, level = 0 }): Stood => ({ id, pile, level }));
  const piles = [...groupBy(stood, ({ pile }) => pile)];
  const reasons: string[] = [];
  const back = stood.find(
    ({ pile }, index) =>
      stood.slice(0, index).some((one) => one.pile === pile) && stood[index - 1]?.pile !== pile,
  );
  if (back !== undefined)
    reasons.push(
      `the bus comes back to pile ${back.pile} at ${at.nameOf(back.id)}: one pile after the other`,
    );
  // A pile of one module runs no way.
  const ways = piles.filter(([, run]) => run.length > 1).map(([pile, run]) => ({ pile, way: wayOf(run) }));
  for (const { pile, way } of ways)
    if (way === undefined) reasons.push(`in pile ${pile} the bus does not pass level after level`);
  ways.slice(1).forEach(({ pile, way }, index) => {
    const before = ways[index]?.way;
    if (way === undefined || before === undefined) return;
    if ((rule === 'mirrored') === (way !== before)) return;
    reasons.push(
      rule === 'mirrored'
        ? `in pile ${pile} the bus runs the same way as in the pile before, where its type wants it mirrored`
        : `in pile ${pile} the bus runs the other way than in the pile before, where its type wants the same`,
    );
  });
  return known(reasons);
}
