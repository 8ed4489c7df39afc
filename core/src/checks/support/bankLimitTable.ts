import { islandBoard } from '../../figures/loads/boards.ts';
import { capabilityWithout } from '../../figures/capability/capability.ts';
import { modesOf } from '../../modes/modes.ts';
import type { Installation } from '../../installation/installation.ts';
import { type BankLimitKey, bankLimits } from '../../figures/bank/bankLimits.ts';
import { all, type Known, known, unknownAt } from '../../values/known.ts';
import type { CompiledBank } from '../../figures/bank/bank.ts';
import type { CheckContext } from '../check.ts';
import { bankOf } from './bank.ts';
import type { StackCase } from './eachLine.ts';
import { startCurrents } from './startCurrent.ts';
import { type BankDemand, demandIn, type Situation } from './bankDemand.ts';

/** One situation of a bank with what is drawn, every limit, and the one that binds. */
export interface BankLimitColumn {
  readonly situation: Situation | 'surge';
  readonly demand: BankDemand;
  /** The smallest of the known limits. */
  readonly binding: { readonly key: BankLimitKey; readonly amperes: number } | undefined;
}

/** The start that draws most, at the voltage the bank has then; undefined where nothing starts or the bank cannot give it. */
function surgeDemand(context: CheckContext, one: StackCase, bank: CompiledBank): BankDemand | undefined {
  const currents = startCurrents(context, one, bank);
  if (currents.kind === 'too-much') return undefined;
  const starts = currents.kind === 'solved' ? currents.starts : currents.most;
  const [most] = [...starts].sort((a, b) => b.amperes - a.amperes);
  if (most === undefined) return undefined;
  const { durationS, evenUnits, spread } = most;
  const { installation } = context;
  const { compiled, type } = one;
  return {
    ...most,
    limits: bankLimits({ site: installation.site, compiled, type, bank, evenUnits, spread, durationS }),
  };
}

/** The limits on a bank side by side at nominal and lowest voltage and during the largest start. 'none' where there is no bank. */
export function bankLimitTable(
  installation: Installation,
  stackId: string,
): Known<readonly BankLimitColumn[] | 'none'> {
  const compiled = installation.stacks.find((one) => one.stack.id === stackId);
  const mode = modesOf(installation).find((one) => one.kind === 'island');
  if (compiled === undefined || mode === undefined) return known('none');
  const bank = bankOf(compiled);
  if (bank === undefined) return known('none');
  const given = all({
    bank,
    type: compiled.type,
    board: islandBoard(compiled),
    capability: capabilityWithout(compiled),
    supply: installation.supply,
  });
  if (!given.known) return given;
  const { board, type, capability, supply } = given.value;
  const missing = [...board.continuous.missing, ...board.starts.missing];
  if (missing.length > 0) return unknownAt(...missing);
  const one = { compiled, supply, lines: supply.lines, type, board, capability, lostUnitId: undefined };
  const columns = (['nominal', 'minimum', 'surge'] as const).flatMap((situation): BankLimitColumn[] => {
    const demand =
      situation === 'surge'
        ? surgeDemand({ installation, mode }, one, given.value.bank)
        : demandIn({ installation, mode }, one, given.value.bank, situation);
    if (demand === undefined) return [];
    const binding = demand.limits.reduce<BankLimitColumn['binding']>((least, { key, amperes }) => {
      if (!amperes.known || amperes.value === 'none') return least;
      return least === undefined || amperes.value < least.amperes ? { key, amperes: amperes.value } : least;
    }, undefined);
    return [{ situation, demand, binding }];
  });
  return known(columns);
}
