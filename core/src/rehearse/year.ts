export const MINUTES_OF_DAY = 1440;
/** The year in stretches of five days: the sun hardly moves within one. */
export const SEASONS = 73;
