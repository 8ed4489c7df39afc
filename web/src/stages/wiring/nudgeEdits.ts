import { type Design, NUDGE_PX } from '@bastion/core';
import { newId, useJob } from '../../state/job.ts';

export type Direction = 'left' | 'up' | 'down' | 'right';

const STEPS: Readonly<Record<Direction, { readonly dxPx: number; readonly dyPx: number }>> = {
  left: { dxPx: -NUDGE_PX, dyPx: 0 },
  up: { dxPx: 0, dyPx: -NUDGE_PX },
  down: { dxPx: 0, dyPx: NUDGE_PX },
  right: { dxPx: NUDGE_PX, dyPx: 0 },
};

/** Which way an arrow key moves; undefined for any other key. */
export const directionOf = (key: string): Direction | undefined =>
  (({ ArrowLeft: 'left', ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'right' }) as const)[key];

export const isNudged = ({ wiring }: Design, nodeId: string): boolean =>
  wiring?.nudges?.some((one) => one.nodeId === nodeId) === true;

/** Moves a symbol of the single line by a step. */
export function nudge(nodeId: string, direction: Direction): void {
  const { dxPx, dyPx } = STEPS[direction];
  useJob.getState().change('Move on the drawing', (draft) => {
    draft.wiring ??= {};
    const nudges = (draft.wiring.nudges ??= []);
    const found = nudges.find((one) => one.nodeId === nodeId);
    if (found === undefined) nudges.push({ id: newId('n'), nodeId, dxPx, dyPx });
    else {
      found.dxPx += dxPx;
      found.dyPx += dyPx;
    }
  });
}

/** Lets a symbol go back to where it was laid. */
export function layBack(nodeId: string): void {
  useJob.getState().change('Back to its place on the drawing', (draft) => {
    if (draft.wiring?.nudges === undefined) return;
    draft.wiring.nudges = draft.wiring.nudges.filter((one) => one.nodeId !== nodeId);
  });
}
