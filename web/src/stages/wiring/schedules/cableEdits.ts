import type { Cable, CableLine, Design, Path } from '@bastion/core';
import { newId } from '../../../state/job.ts';

/** What somebody says of one cable; made where nobody has said anything of it yet. */
export function cableIn(draft: Design, lineId: string): Cable {
  draft.wiring ??= {};
  draft.wiring.cables ??= [];
  const found = draft.wiring.cables.find((one) => one.lineId === lineId);
  if (found !== undefined) return found;
  const made: Cable = { id: newId('w'), lineId };
  draft.wiring.cables.push(made);
  // What the list holds is the draft of it, not the object it was made of.
  return draft.wiring.cables.at(-1) ?? made;
}

const isObject = (value: unknown): value is object => typeof value === 'object' && value !== null;

const hasId = (value: unknown, id: unknown): boolean => isObject(value) && Reflect.get(value, 'id') === id;

/** Sets a figure at a place of the design: entities go by their id, and what is not there on the way is made. */
function setAt(draft: Design, path: Path, value: number | undefined): void {
  let at: object = draft;
  for (const part of path.slice(0, -1)) {
    const next: unknown = Array.isArray(at) ? at.find((one) => hasId(one, part)) : Reflect.get(at, part);
    if (isObject(next)) at = next;
    else if (Array.isArray(at)) return;
    else {
      Reflect.set(at, part, {});
      const made: unknown = Reflect.get(at, part);
      if (!isObject(made)) return;
      at = made;
    }
  }
  const key = path.at(-1) ?? '';
  if (value === undefined) Reflect.deleteProperty(at, key);
  else Reflect.set(at, key, value);
}

/** Types length or size of a cable where it belongs: at its circuit, unit or bank, else in the list of cables. */
export function setCableFigure(
  draft: Design,
  line: CableLine,
  key: 'lengthM' | 'areaMm2',
  value: number | undefined,
): void {
  const path = key === 'lengthM' ? line.lengthPath : line.areaPath;
  if (path[0] !== 'wiring') {
    setAt(draft, path, value);
    return;
  }
  const cable = cableIn(draft, line.id);
  if (value === undefined) Reflect.deleteProperty(cable, key);
  else cable[key] = value;
}
