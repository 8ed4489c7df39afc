import type { Design } from '../design/schema.ts';
import type { Installation } from '../installation/installation.ts';
import { type ModeFacts, walkOf } from '../modes/walk.ts';
import { bonded } from './bonding.ts';
import { baseDesign, deepFreeze } from './designs.ts';

/** A bonded design with changes, frozen. */
export function designOf(edit: (design: Design) => void): Design {
  const design = baseDesign();
  bonded(design);
  edit(design);
  return deepFreeze(design);
}

/** What the walk finds in a mode that there is. */
export function factsOf(installation: Installation, mode: string): ModeFacts {
  const walk = walkOf(installation);
  const facts = walk.known ? walk.value.get(mode) : undefined;
  if (facts === undefined) throw new Error(`There is a mode ${mode}.`);
  return facts;
}
