import type { Edit } from './edits.ts';

/** What a field electrician may write into a design: ticks of the delivery list, and clamp readings. */
export function isFieldNote({ path }: Edit): boolean {
  return path[0] === 'delivery' || (path[0] === 'circuits' && path[2] === 'clampReadings');
}

/** Taking responsibility for a finding, or taking that back: for the approver alone. */
export const isAcceptance = ({ path }: Edit): boolean => path[0] === 'accepted';

/** Everything that changes the design itself. */
export const isDesignWork = (edit: Edit): boolean => !isAcceptance(edit);
