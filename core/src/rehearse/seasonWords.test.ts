import { expect, it } from 'vitest';
import { seasonWords } from './seasonWords.ts';

// The middle of the stretch: (n + 0.5) / 73 of twelve months.
it.each([
  [0, 'January'],
  [5, 'January'],
  [6, 'February'],
  [36, 'July'],
  [72, 'December'],
])('stretch %s lies in %s', (season, month) => expect(seasonWords(season)).toBe(month));
