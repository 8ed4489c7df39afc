import { analyse } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { diff } from '../design/edits.ts';
import type { Circuit, Design } from '../design/schema.ts';
import { figuresOf } from './figures.ts';
import type { AdviceKind, Figures, Proposal, ProposalPart } from './proposal.ts';

/** A part that changes one circuit. */
export function circuitPart(
  design: Design,
  circuit: Circuit,
  label: string,
  change: (circuit: Circuit) => Circuit,
): ProposalPart {
  const circuits = design.circuits.map((one) => (one.id === circuit.id ? change(one) : one));
  return { id: circuit.id, label, edits: diff(design, { ...design, circuits }) };
}

/** Puts a proposal together and works out what the design comes to with it. */
export function makeProposal(
  kind: AdviceKind,
  id: string,
  title: string,
  given: {
    readonly design: Design;
    readonly after: Design;
    readonly parts: readonly ProposalPart[];
    readonly notes: readonly string[];
    readonly before: Figures;
  },
  catalogue: readonly EquipmentType[],
): Proposal {
  const { design, after, parts, notes, before } = given;
  return {
    id,
    kind,
    title,
    notes,
    parts,
    edits: diff(design, after),
    before,
    after: figuresOf(analyse(after, catalogue)),
  };
}
