import type { Design } from '../../design/schema.ts';
import { floorSocOf } from '../../figures/bank/ofSet.ts';
import { levelStages } from '../../figures/loads/shedLevels.ts';
import { freeId, once, type Candidate, type Trouble } from './candidate.ts';
import { leastImportantFirst } from './loadSide.ts';

/** How many circuits go into the stage at most. */
const MOST = 6;
/** Levels are set in such steps. */
const STEP_SOC = 0.05;
const MOST_STAGES = 9;

/** Halfway down from the reserve to the cut-off, as a relay or a controller is set. */
function levelOf({ compiled }: Trouble): number | undefined {
  const bank = compiled?.stack.bank;
  if (typeof bank !== 'object' || bank.reserveSoc === undefined) return undefined;
  const floor = bank.cutoffSoc ?? 0;
  const level = Math.round((bank.reserveSoc + floor) / 2 / STEP_SOC) * STEP_SOC;
  return level > floor && level < bank.reserveSoc ? Number(level.toFixed(2)) : undefined;
}

/** What matters least is carried until the bank is half way down, and dropped there: a stage of its own, one circuit more at each step. */
export function shedStage(trouble: Trouble): Candidate[] {
  const { compiled, design } = trouble;
  const level = levelOf(trouble);
  if (compiled === undefined || level === undefined) return [];
  const kinds = new Map(design.partitions.map((one) => [one.id, one.kind]));
  const order = leastImportantFirst(trouble).filter(
    ({ partitionId }) => kinds.get(partitionId ?? '') === 'backup',
  );
  const stage =
    1 + Math.max(0, ...design.partitions.map((one) => (one.kind === 'shed' ? (one.shedStage ?? 0) : 0)));
  if (stage > MOST_STAGES) return [];
  const chosen = (step: number): typeof order => order.slice(0, step);
  return [
    {
      id: 'shed-stage',
      title: (step) =>
        `Drop ${chosen(step)
          .map(({ name }) => name)
          .join(', ')} below ${Math.round(level * 100)} % of charge, as a shed stage`,
      most: Math.min(MOST, order.length),
      make: (draft, step): Design => {
        const ids = new Set(chosen(step).map(({ id }) => id));
        const id = freeId('p', draft.partitions);
        return {
          ...draft,
          partitions: [
            ...draft.partitions,
            {
              id,
              name: `Shed stage ${stage}`,
              kind: 'shed',
              stackId: compiled.stack.id,
              shedStage: stage,
              shedWhen: 'below-soc',
              shedBelowSoc: level,
            },
          ],
          circuits: draft.circuits.map((one) => (ids.has(one.id) ? { ...one, partitionId: id } : one)),
        };
      },
    },
  ];
}

/** The stages of a set at the levels that are stated, highest first in their order, and each above the end of discharge. */
export function orderedLevels({ compiled }: Trouble): Candidate[] {
  if (compiled === undefined) return [];
  const lowest = Number(((floorSocOf(compiled) ?? 0) + STEP_SOC).toFixed(2));
  const stages = levelStages(compiled.partitions).filter(({ shedBelowSoc }) => shedBelowSoc !== undefined);
  const levels = stages.map(({ shedBelowSoc = 0 }) => Math.max(lowest, shedBelowSoc)).sort((a, b) => b - a);
  const levelFor = new Map(stages.map(({ id }, at) => [id, levels[at] ?? lowest]));
  const words = stages.map(({ id, name }) => `${name} below ${Math.round((levelFor.get(id) ?? 0) * 100)} %`);
  return [
    once('ordered-levels', words.join(', '), (design) => ({
      ...design,
      partitions: design.partitions.map((one) => {
        const level = levelFor.get(one.id);
        return level === undefined ? one : { ...one, shedBelowSoc: level };
      }),
    })),
  ];
}
