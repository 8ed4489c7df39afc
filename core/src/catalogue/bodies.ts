import type { Body } from './common.ts';

/** Rows of hole centres, from the lower left corner: the same distances along each row. */
function rows(xsM: readonly number[], ysM: readonly number[], diameterMm: number): Body['drilling'] {
  return ysM.flatMap((yM) => xsM.map((xM) => ({ xM, yM, diameterMm })));
}

/** A sample body that hangs on a bracket with two rows of holes, 60 mm in from its edges. */
export function wallBody(widthM: number, heightM: number, depthM: number, over: Partial<Body> = {}): Body {
  return {
    widthM,
    heightM,
    depthM,
    mount: 'wall',
    clearSidesM: 0.2,
    clearAboveM: 0.3,
    clearBelowM: 0.5,
    clearFrontM: 0.8,
    heightAboveFloorM: { min: 0.5, max: 1.8 },
    wetRated: 'sheltered',
    drilling: rows([0.06, widthM - 0.06], [heightM * 0.25, heightM * 0.75], 10),
    ...over,
  };
}

/** A sample body that stands on the floor and is held to the wall at its top. */
export function floorBody(widthM: number, heightM: number, depthM: number, over: Partial<Body> = {}): Body {
  return {
    ...wallBody(widthM, heightM, depthM),
    mount: 'floor',
    clearSidesM: 0.1,
    clearBelowM: 0,
    heightAboveFloorM: { min: 0, max: 0.15 },
    wetRated: 'indoors',
    drilling: rows([0.08, widthM - 0.08], [heightM - 0.05], 8),
    ...over,
  };
}
