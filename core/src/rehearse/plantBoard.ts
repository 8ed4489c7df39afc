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
  /** The same line by line, W and var; not there where no line is looked at by itself. */
  readonly lines?: readonly LineDay[];
}

/** A day of one line, minute by minute. */
export interface LineDay {
  readonly re: Float64Array;
  readonly im: Float64Array;
}
