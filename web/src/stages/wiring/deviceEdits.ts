import { belongsOf, belongsTo, type Design, type Part } from '@bastion/core';
import { newId } from '../../state/job.ts';

type Device = Design['devices'][number];

/** The entry of a device in the list of the design; undefined while nobody has said anything of it. */
export function deviceOf(design: Design, part: Part): Device | undefined {
  const { role } = part;
  if (role === undefined || role === 'circuit') return undefined;
  const of = belongsOf(part);
  return design.devices.find((one) => belongsTo(one, role, of));
}

/** The same in a draft, made when it is first spoken of. */
export function deviceIn(draft: Design, part: Part): Device | undefined {
  const found = deviceOf(draft, part);
  if (found !== undefined || part.role === undefined || part.role === 'circuit') return found;
  draft.devices.push({ id: newId('q'), role: part.role, ...belongsOf(part) });
  return draft.devices.at(-1);
}
