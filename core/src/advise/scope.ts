import { analyse } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import type { Circuit, Design, Partition } from '../design/schema.ts';
import { counted } from '../words/quantity.ts';
import { figuresOf } from './figures.ts';
import { circuitPart, makeProposal } from './makeProposal.ts';
import { importanceOf } from '../figures/loads/importance.ts';
import type { Advice } from './proposal.ts';

export type Scope = 'whole' | 'partial';

/** The whole building is backed up when nothing stays on the grid side. */
export function scopeOf(design: Design): Scope {
  const dark = new Set(design.partitions.filter((one) => one.kind === 'grid').map((one) => one.id));
  return design.circuits.some((circuit) => dark.has(circuit.partitionId ?? '')) ? 'partial' : 'whole';
}

function target(design: Design, scope: Scope): Partition | undefined {
  return design.partitions.find((one) => one.kind === (scope === 'whole' ? 'backup' : 'grid'));
}

/** What moves: for the whole building all that is dark; for a part of it what may be left off or is only nice to have. */
function moves(design: Design, circuit: Circuit, scope: Scope): boolean {
  const kind = design.partitions.find((one) => one.id === circuit.partitionId)?.kind;
  if (scope === 'whole') return kind === 'grid';
  const importance = importanceOf(circuit);
  return kind === 'backup' && (importance === 'leave-off' || importance === 'could');
}

/** The switch between whole-building and partial backup, with what follows from it worked out before it is applied. */
export function adviseScope(design: Design, catalogue: readonly EquipmentType[], scope: Scope): Advice {
  const to = target(design, scope);
  if (to === undefined) {
    const what = scope === 'whole' ? 'backup output' : 'grid side';
    return { kind: 'scope', proposals: [], notes: [`There is no ${what} to move circuits to.`] };
  }
  const moving = design.circuits.filter((circuit) => moves(design, circuit, scope));
  if (moving.length === 0) {
    const why =
      scope === 'whole'
        ? 'Nothing is on the grid side: the whole building is backed up already.'
        : 'No backed-up circuit is marked “could” or “leave off”: say what matters less first.';
    return { kind: 'scope', proposals: [], notes: [why] };
  }
  const onTo = (circuit: Circuit): Circuit => ({ ...circuit, partitionId: to.id });
  const ids = new Set(moving.map((circuit) => circuit.id));
  const after: Design = {
    ...design,
    circuits: design.circuits.map((circuit) => (ids.has(circuit.id) ? onTo(circuit) : circuit)),
  };
  const title = scope === 'whole' ? 'Back up the whole building' : 'Back up a part of the building';
  return {
    kind: 'scope',
    notes: [],
    proposals: [
      makeProposal(
        'scope',
        `scope-${scope}`,
        title,
        {
          design,
          after,
          parts: moving.map((circuit) => circuitPart(design, circuit, `${circuit.name} to ${to.name}`, onTo)),
          notes: [
            `${counted(moving.length, 'circuit')} to ${to.name}.`,
            scope === 'whole'
              ? 'The whole service current then passes through the transfer device; the pass-through and port limits decide.'
              : 'What moves goes dark in an outage.',
          ],
          before: figuresOf(analyse(design, catalogue)),
        },
        catalogue,
      ),
    ],
  };
}
