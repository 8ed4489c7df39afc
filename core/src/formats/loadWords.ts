import type { Importance, StartClass } from '../design/schema.ts';

/** How people write how a thing starts, by the class that the tables know. The first that a cell holds counts. */
const START_WORDS: readonly (readonly [StartClass, RegExp])[] = [
  ['star-delta', /star.?delta|wye.?delta|y.?d start/],
  ['soft-start', /soft.?start/],
  ['soft-drive', /\bvfd\b|\bvsd\b|variable|inverter (drive|driven)|frequency drive|soft.?drive/],
  ['dol-3ph', /\bdol\b|direct.?on.?line|across the line/],
  ['deep-pump', /bore ?hole|deep.?(well|pump)|submersible|well pump/],
  ['compressor', /compressor|refriger|fridge|freezer|cooler|air.?con|heat pump/],
  ['welder', /weld/],
  ['transformer', /transformer|x.?ray|microwave/],
  ['universal', /universal|power tool|hand tool|drill|vacuum|grinder, hand/],
  ['split-phase-motor', /split.?phase|fan motor|small motor/],
  ['capacitor-motor', /capacitor|motor|pump|fan/],
  ['cold-filament', /filament|halogen|incandescent/],
  ['electronic', /electronic|\bled\b|computer|\bpc\b|\bit\b|switch.?mode|server|screen/],
  ['steady', /steady|resist|heater|heating|kettle|oven|none|no inrush|element/],
];

const IMPORTANCE_WORDS: readonly (readonly [Importance, RegExp])[] = [
  ['leave-off', /leave.?off|not needed|\bnever\b|^off$|^4$/],
  ['must', /must|critical|essential|vital|high|always|^1$|^(yes|y|true|x|✓|✔)$/],
  ['should', /should|important|medium|normal|^2$/],
  // That something is not critical does not say that it shall be off.
  ['could', /could|nice|low|optional|if possible|^3$|^(no|n|false|-|–)$/],
];

function wordOf<T>(words: readonly (readonly [T, RegExp])[], text: string): T | undefined {
  const plain = text.toLowerCase();
  return words.find(([, pattern]) => pattern.test(plain))?.[0];
}

/** The start class that a cell means in words; undefined where it says nothing that is known. */
export const startWord = (text: string): StartClass | undefined => wordOf(START_WORDS, text);

/** The importance that a cell means in words. "not essential" means the opposite of what it holds. */
export function importanceWord(text: string): Importance | undefined {
  if (/\bnon.?essential|not (essential|critical|important)/i.test(text)) return 'could';
  return wordOf(IMPORTANCE_WORDS, text);
}

/** How many times the unit of a field a heading or a cell states: "kW" a thousand times W. Undefined for another quantity. */
export function powerScale(text: string): number | undefined {
  const plain = text.toLowerCase();
  if (/(^|[^a-z])k?wh(?![a-z])|watt.?hours/.test(plain)) return undefined;
  return /(^|[^a-z])k(w|va)(?![a-z])|kilowatt/.test(plain) ? 1000 : 1;
}

/** Whether a heading speaks of energy, which no power can be read from. */
export const isEnergy = (heading: string): boolean => powerScale(heading) === undefined;

/** Whether a heading or a cell speaks of apparent power. */
export const isApparent = (text: string): boolean => /(^|[^a-z])k?va(?![a-z])/i.test(text);
