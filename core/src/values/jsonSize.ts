/** How deep things may lie inside of each other. A design needs less than half of it. */
export const MOST_DEPTH = 40;
/** How many values a text may hold: ten thousand circuits of six fully stated items have fewer. */
export const MOST_VALUES = 1_000_000;

/** How many fields one object may have. The widest thing of a design has some fifty. */
export const MOST_FIELDS = 500;

/** How much a JSON text holds, whatever it says. */
export interface JsonSize {
  /** Lists and objects inside of each other, at the deepest place. */
  readonly depth: number;
  /** Values in lists and objects, counted by what opens and parts them. */
  readonly values: number;
  /** Fields of the object that has most. */
  readonly fields: number;
}

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const COMMA = 0x2c;
const COLON = 0x3a;
const OPEN_LIST = 0x5b;
const CLOSE_LIST = 0x5d;
const OPEN_OBJECT = 0x7b;
const CLOSE_OBJECT = 0x7d;

/** Where the string ends that begins at a quote: at the next quote that an even number of backslashes stands before. */
function endOfString(text: string, from: number): number {
  for (let end = text.indexOf('"', from + 1); end !== -1; end = text.indexOf('"', end + 1)) {
    let first = end;
    while (text.charCodeAt(first - 1) === BACKSLASH) first -= 1;
    if ((end - first) % 2 === 0) return end;
  }
  return text.length;
}

/** Measures a JSON text in one pass, before anything is made of it. Text that is no JSON is measured as well, and means nothing. */
export function jsonSize(text: string): JsonSize {
  let [depth, deepest, values, widest] = [0, 0, 0, 0];
  /** Fields so far of what is open at each depth; what lies deeper than may be is not told apart. */
  const fields = new Int32Array(MOST_DEPTH + 2);
  const here = (): number => Math.max(0, Math.min(depth, MOST_DEPTH + 1));
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (code === QUOTE) at = endOfString(text, at);
    else if (code === COMMA) values += 1;
    else if (code === COLON) {
      const count = (fields[here()] ?? 0) + 1;
      fields[here()] = count;
      if (count > widest) widest = count;
    } else if (code === OPEN_LIST || code === OPEN_OBJECT) {
      values += 1;
      depth += 1;
      fields[here()] = 0;
      if (depth > deepest) deepest = depth;
    } else if (code === CLOSE_LIST || code === CLOSE_OBJECT) depth -= 1;
  }
  return { depth: deepest, values, fields: widest };
}

/** Why a text holds more than anything that is read here; undefined where it does not. The figure and its limit are named. */
export function sizeProblem(text: string): string | undefined {
  const { depth, values, fields } = jsonSize(text);
  if (depth > MOST_DEPTH)
    return `things lie ${depth} deep in each other; ${MOST_DEPTH} is the most that is read`;
  if (values > MOST_VALUES)
    return `this holds about ${values.toLocaleString('en')} values; ${MOST_VALUES.toLocaleString('en')} is the most that is read`;
  if (fields > MOST_FIELDS)
    return `one object has ${fields.toLocaleString('en')} fields; ${MOST_FIELDS} is the most that is read`;
  return undefined;
}
