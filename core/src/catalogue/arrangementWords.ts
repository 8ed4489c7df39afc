import type { Arrangement } from './inverterType.ts';

/** How units make the lines of a supply, as people say it. */
export const ARRANGEMENT_WORDS: Readonly<Record<Arrangement, string>> = {
  'one-unit': 'One unit',
  'parallel-single-phase': 'Parallel on one line',
  'split-phase-native': 'Split-phase from one cabinet',
  'split-phase-autotransformer': 'Split-phase with autotransformer',
  'three-phase-native': 'Three-phase from one cabinet',
  'three-phase-from-single': 'Three-phase from single-phase units',
  'three-phase-ring': 'Three-phase from split-phase units in a ring',
  'ac-coupled-storage': 'AC-coupled storage, one set of several',
  'dc-side-box': 'Storage box on the DC side',
  'split-phase-from-single': 'Split-phase from two lines of 120 V units',
};
