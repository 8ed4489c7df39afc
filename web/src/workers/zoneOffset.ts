import type { ZoneOffsetMin } from '@bastion/core';

/** Minutes a time zone is ahead of UTC, asked of the browser's own tables. */
export function zoneOffset(timeZone: string): ZoneOffsetMin {
  const format = new Intl.DateTimeFormat('en-US', {
    timeZone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
  });
  return (utcMs) => {
    const parts = new Map(format.formatToParts(utcMs).map(({ type, value }) => [type, Number(value)]));
    const part = (name: string): number => parts.get(name as Intl.DateTimeFormatPartTypes) ?? 0;
    const localMs = Date.UTC(
      part('year'),
      part('month') - 1,
      part('day'),
      part('hour'),
      part('minute'),
      part('second'),
    );
    return Math.round((localMs - Math.floor(utcMs / 1000) * 1000) / 60_000);
  };
}
