const MINUTES_OF_DAY = 1440;

/** An hour of the day as it is written: 7.5 is "07:30". */
export function clockWords(hour: number): string {
  const minutes = Math.round(hour * 60) % MINUTES_OF_DAY;
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}
