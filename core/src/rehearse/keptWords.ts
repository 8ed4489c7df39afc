import { clockWords } from '../words/clock.ts';
import { MONTH_NAMES } from '../words/months.ts';
import type { KeptRehearsal } from '../installation/facts.ts';
import { formatNumber } from '../words/quantity.ts';
import type { Band } from './bands.ts';
import { PATTERNS, typedPattern } from './patterns.ts';

/** So many hours of a spread are kept, beside its last. */
const MOST_BANDS = 12;

const percent = (share: number): string => `${formatNumber(Math.round(share * 1000) / 10)} %`;

/** How a kept rehearsal was asked for, in a sentence. */
export function askedWords(kept: KeptRehearsal): string {
  const from = kept.fromFull ? 'a full bank' : 'the reserve';
  if (kept.played === 'outage')
    return [
      `${formatNumber(kept.hours)} h from ${clockWords(kept.startH)} in ${MONTH_NAMES[kept.month - 1] ?? ''}`,
      `${percent(kept.clearness)} of a clear sky`,
      `from ${from}`,
      ...(kept.seed === undefined ? [] : [`chance on the load, seed ${kept.seed}`]),
      ...(kept.lose === undefined
        ? []
        : [`a ${kept.lose.what} fails after ${formatNumber(kept.lose.atH)} h`]),
    ].join(', ');
  const pattern = PATTERNS.find(({ id }) => id === kept.patternId) ?? typedPattern(kept.typedHours ?? []);
  const title = pattern.id === 'typed' ? pattern.meaning.replace(/\.$/u, '') : pattern.title.toLowerCase();
  return `${kept.nights.toLocaleString('en')} outages, ${title}, seed ${kept.seed}, from ${from}`;
}

/** What came of a kept rehearsal, in sentences. */
export function foundWords(kept: KeptRehearsal): string[] {
  const generator =
    kept.generatorH > 0
      ? [`Generator ${formatNumber(kept.generatorH)} h, ${formatNumber(kept.litres)} L.`]
      : [];
  if (kept.played === 'outage')
    return [
      kept.words,
      `Served ${formatNumber(kept.servedKwh)} kWh, not served ${formatNumber(kept.unservedKwh)} kWh; lowest state of charge ${percent(kept.lowestSoc)}.`,
      ...generator,
    ];
  return [
    `${percent(kept.carried)} are carried to their end${kept.toTarget === undefined ? '' : `, ${percent(kept.toTarget)} to the hours that the site asks for`}.`,
    ...kept.boards.map(
      ({ name, worst1, worst5, middle }) =>
        `${name} is served for ${percent(worst1)} of the outage in the worst 1 of 100, ${percent(worst5)} in the worst 5, ${percent(middle)} in the middle.`,
    ),
    `Not served ${formatNumber(kept.unservedKwh)} kWh on average; a limit of power was met in ${percent(kept.overloaded)} of them.`,
    ...generator,
  ];
}

/** The hours at which a kept spread is told: every so many, so that there are a dozen at most, with the first and the last. */
export function keptBands(bands: readonly Band[]): { hour: number; dark: number; soc: number[] }[] {
  const last = bands.at(-1);
  const step = Math.max(1, Math.ceil(bands.length / MOST_BANDS));
  return bands
    .filter((band, at) => at % step === 0 || band === last)
    .map(({ hour, dark, soc }) => ({ hour, dark, soc: [...soc] }));
}

/** The spread of many nights over time as a table: hour, state of charge from the worst to the best, share that is dark. */
export const bandRows = (kept: KeptRehearsal): readonly (readonly string[])[] =>
  kept.played === 'nights'
    ? (kept.bands ?? []).map(({ hour, dark, soc }) => [
        `${formatNumber(hour)} h`,
        ...soc.map(percent),
        percent(dark),
      ])
    : [];
