import { analyse } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { type TypeChange, typeChanges } from '../catalogue/sheet.ts';
import { SHEETS } from '../catalogue/sheets.ts';
import { type State, subjectKey } from '../checks/finding.ts';
import type { CheckId, RegisteredFinding } from '../checks/registry.ts';
import { readDesign } from '../design/read.ts';
import type { Design } from '../design/schema.ts';
import { usedTypeIds } from '../design/usedTypes.ts';

/** A type of a job of which the catalogue has a newer version. The job keeps its copy until somebody takes the newer one. */
export interface NewerType {
  readonly before: EquipmentType;
  readonly after: EquipmentType;
  readonly changes: readonly TypeChange[];
}

export function newerTypes(design: Design, catalogue: readonly EquipmentType[]): NewerType[] {
  const latest = new Map(catalogue.map((type) => [type.id, type]));
  const used = usedTypeIds(design);
  return design.types.flatMap((before): NewerType[] => {
    const after = latest.get(before.id);
    if (!used.has(before.id) || after?.kind !== before.kind || after.version <= before.version) return [];
    return [{ before, after, changes: typeChanges(before, after, SHEETS[before.kind]) }];
  });
}

/** A finding that comes out otherwise, by state. Absent on one side where it is there on the other only. */
export interface FindingChange {
  readonly check: CheckId;
  readonly subject: string;
  readonly mode: string;
  readonly before: State | undefined;
  readonly after: State | undefined;
}

const keyOf = ({ check, subject, mode }: RegisteredFinding): string =>
  `${check} ${subjectKey(subject)} ${mode}`;

/** The design with another version of a type, and which findings would come out otherwise. Undefined where it would be no design. */
export function tryType(
  design: Design,
  type: EquipmentType,
  before: readonly RegisteredFinding[],
  catalogue: readonly EquipmentType[],
): { readonly design: Design; readonly changes: readonly FindingChange[] } | undefined {
  const types = design.types.map((one) => (one.id === type.id ? type : one));
  const read = readDesign({ ...design, types }, catalogue);
  if (!read.ok) return undefined;
  const was = new Map(before.map((finding) => [keyOf(finding), finding]));
  const is = new Map(analyse(read.value, catalogue).findings.map((finding) => [keyOf(finding), finding]));
  const changes = [...new Set([...was.keys(), ...is.keys()])].flatMap((key): FindingChange[] => {
    const [old, fresh] = [was.get(key), is.get(key)];
    const one = fresh ?? old;
    if (one === undefined || old?.state === fresh?.state) return [];
    return [
      {
        check: one.check,
        subject: one.subject.label,
        mode: one.mode,
        before: old?.state,
        after: fresh?.state,
      },
    ];
  });
  return { design: read.value, changes };
}
