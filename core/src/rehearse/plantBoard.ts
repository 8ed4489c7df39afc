/** A board that is carried, or not, by itself. */
export interface PlantBoard {
  readonly partitionId: string;
  readonly name: string;
  /** Below this state of charge it is dropped; undefined for one that stays. */
  readonly shedBelowSoc: number | undefined;
  /** Live while a generator runs, and then only. */
  readonly onlyWithGenerator: boolean;
  /** Average power by minute of the day, W. */
  readonly minuteW: Float64Array;
  /** The same by season of the year, where a meter has measured it. */
  readonly seasonW?: readonly Float64Array[];
}
