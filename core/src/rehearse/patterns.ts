import { exp } from '../values/elementary.ts';
import { type Chance, next, normal } from './chance.ts';

/** How long outages last, as a choice to rehearse with. */
export interface OutagePattern {
  readonly id: string;
  readonly title: string;
  readonly meaning: string;
  /** One length, minutes. */
  readonly draw: (chance: Chance) => number;
}

/** The longest outage that is played, minutes. */
export const LONGEST_MINUTES = 14 * 1440;

const held = (minutes: number): number => Math.min(LONGEST_MINUTES, Math.max(1, Math.round(minutes)));
const logNormal = (chance: Chance, medianMinutes: number, spread: number): number =>
  held(medianMinutes * exp(spread * normal(chance)));

/** What is played where nobody has chosen. */
export const RURAL: OutagePattern = {
  id: 'rural',
  title: 'Country network',
  meaning:
    'A line that somebody has to drive to: half are over within 4 h, one in twenty lasts longer than 20 h.',
  draw: (chance) => logNormal(chance, 240, 0.98),
};

/** Outage lengths to choose from; planning assumptions, each described by what it stands for. */
export const PATTERNS: readonly OutagePattern[] = [
  {
    id: 'city',
    title: 'City network',
    meaning:
      'A fault that is switched around: half are over within an hour, one in twenty lasts longer than 5 h.',
    draw: (chance) => logNormal(chance, 60, 0.98),
  },
  RURAL,
  {
    id: 'storm',
    title: 'After a storm',
    meaning: 'Lines on the ground: half are over within 16 h, one in twenty lasts longer than 3 days.',
    draw: (chance) => logNormal(chance, 960, 0.92),
  },
  {
    id: 'rota',
    title: 'Cut by rota',
    meaning: 'Supply is shared out: 2, 4 or 8 h, each as likely as the others.',
    draw: (chance) => [120, 240, 480][Math.floor(next(chance) * 3)] ?? 240,
  },
];

/** Lengths that somebody has typed, each as likely as the others. */
export const typedPattern = (hours: readonly number[]): OutagePattern => ({
  id: 'typed',
  title: 'As typed',
  meaning: `${hours.join(', ')} h, each as likely as the others.`,
  draw: (chance) => held((hours[Math.floor(next(chance) * hours.length)] ?? 1) * 60),
});
