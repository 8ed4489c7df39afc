import { z } from 'zod';

/**
 * Locked-rotor code letters: upper end of each band, in kVA per horsepower. The last band has no upper end, so a motor of
 * that letter needs its locked-rotor current. Basis: North American practice for motor data plates (430.7(B)).
 */
export const CODE_LETTER_KVA_PER_HP = {
  A: 3.14,
  B: 3.54,
  C: 3.99,
  D: 4.49,
  E: 4.99,
  F: 5.59,
  G: 6.29,
  H: 7.09,
  J: 7.99,
  K: 8.99,
  L: 9.99,
  M: 11.19,
  N: 12.49,
  P: 13.99,
  R: 15.99,
  S: 17.99,
  T: 19.99,
  U: 22.39,
} as const;

export type StartCodeLetter = keyof typeof CODE_LETTER_KVA_PER_HP;
export const CODE_LETTERS = Object.keys(CODE_LETTER_KVA_PER_HP).filter(
  (letter): letter is StartCodeLetter => letter in CODE_LETTER_KVA_PER_HP,
);
export const startCodeLetter = z.enum(CODE_LETTERS);
