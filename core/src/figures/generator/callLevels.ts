import type { SetSettings } from '../../installation/facts.ts';

/** Where nobody has set it: called for so far above the level at which discharge ends, and let go at this level. */
const ABOVE_FLOOR = 0.1;
const LET_GO_SOC = 0.8;

/** States of charge at which a generator that the inverters start is called, and let go; as it is set, else as planned. */
export interface CallLevels {
  readonly fromSoc: number;
  readonly toSoc: number;
}

export const callLevels = (settings: SetSettings | undefined, floorSoc: number): CallLevels => ({
  fromSoc: settings?.generatorFromSoc ?? Math.min(1, floorSoc + ABOVE_FLOOR),
  toSoc: settings?.generatorToSoc ?? LET_GO_SOC,
});
