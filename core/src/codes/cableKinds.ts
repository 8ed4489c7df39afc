/** Insulation by what the tables call it: highest temperature of the copper inside. */
export const INSULATIONS = ['PVC70', 'XLPE90', '60C', '75C', '90C'] as const;
export type Insulation = (typeof INSULATIONS)[number];

/** How a cable is laid: A in an insulating wall, B in conduit, C clipped direct; 1 single cores, 2 one cable. */
export const METHODS = ['A1', 'A2', 'B1', 'B2', 'C'] as const;
export type Method = (typeof METHODS)[number];
