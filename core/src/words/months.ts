export const MONTH_NAMES: readonly string[] =
  'January February March April May June July August September October November December'.split(' ');
