/** Names that are not plain words, as people say them; everything else is its id with spaces. */
const WORDS: Readonly<Record<string, string>> = {
  A: 'type A',
  F: 'type F',
  B: 'type B',
  'one-unit': 'one unit',
  'parallel-single-phase': 'parallel on one line',
  'split-phase-native': 'split-phase from one cabinet',
  'split-phase-autotransformer': 'split-phase with autotransformer',
  'split-phase-from-single': 'split-phase from 120 V units',
  'three-phase-native': 'three-phase from one cabinet',
  'three-phase-from-single': 'three-phase from single-phase units',
  'three-phase-ring': 'three-phase in a ring',
  'ac-coupled-storage': 'AC-coupled storage',
  'dc-side-box': 'on the DC side',
  'holds-battery-and-meter': 'the unit that holds battery bus and meter',
  'first-powered': 'the unit powered first',
  'parallel-cable-joined': 'with the parallel cable joined',
  'each-alone': 'each unit alone',
  either: 'either of them',
  'from-0': 'by hand, from 0',
  'from-1': 'by hand, from 1',
  'dc-breaker': 'DC breaker',
  'dc-fuse': 'DC fuse',
};

export const optionWords = (option: string): string => WORDS[option] ?? option.replace(/-/g, ' ');
