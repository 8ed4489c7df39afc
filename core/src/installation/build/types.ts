import type { EquipmentKind, EquipmentType, TypeOf } from '../../catalogue/schema.ts';
import type { Design } from '../../design/schema.ts';
import { type Known, known, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';

/** Finds a type of one kind by its id; not known, with the place that names it, where there is none. */
export type FindType = <K extends EquipmentKind>(
  kind: K,
  id: string | undefined,
  path: Path,
) => Known<TypeOf<K>>;

/** Looks in the copies of the document first, so that a job stays as it was, then in the catalogue. */
export function typeFinder(design: Design, catalogue: readonly EquipmentType[]): FindType {
  const byId = new Map<string, EquipmentType>();
  for (const type of [...catalogue, ...design.types]) byId.set(type.id, type);
  return <K extends EquipmentKind>(kind: K, id: string | undefined, path: Path): Known<TypeOf<K>> => {
    const found = id === undefined ? undefined : byId.get(id);
    return found?.kind === kind ? known(found as TypeOf<K>) : unknownAt(path);
  };
}
