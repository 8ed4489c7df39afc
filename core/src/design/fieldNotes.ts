import type { Edit } from './edits.ts';

/** What a field electrician may write into a design: ticks of the delivery list, and clamp readings. */
export function isFieldNote({ path }: Edit): boolean {
  return path[0] === 'delivery' || (path[0] === 'circuits' && path[2] === 'clampReadings');
}
