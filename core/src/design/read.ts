import type { EquipmentType } from '../catalogue/schema.ts';
import type { Edit } from './edits.ts';
import { migrate } from './migrate.ts';
import { sizeProblem } from '../values/jsonSize.ts';
import { type Problem, type Result, problemsFrom } from '../values/problem.ts';
import { referenceProblems } from './references.ts';
import { circuitRules, fineCircuits } from './readCircuits.ts';
import { type Design, designSchema, FORMAT, MOST_CIRCUITS } from './schema.ts';

/** The largest document that is read, in UTF-16 units: far above 6,000 circuits, far below what would stop a machine. */
export const MAX_DOCUMENT_LENGTH = 20_000_000;

/** Judges a value that came from outside: migrated, checked against the schema, references followed. */
export function readDesign(value: unknown, catalogue: readonly EquipmentType[]): Result<Design> {
  const migrated = migrate(value);
  if (!migrated.ok) return migrated;
  const read = readParts(migrated.value) ?? readWhole(migrated.value);
  if (!read.ok) return read;
  const problems = referenceProblems(read.value, catalogue);
  return problems.length > 0 ? { ok: false, problems } : read;
}

function readWhole(value: unknown): Result<Design> {
  const parsed = designSchema.safeParse(value, { reportInput: true });
  return parsed.success
    ? { ok: true, value: parsed.data }
    : { ok: false, problems: problemsFrom(parsed.error) };
}

/** Most of a document are its circuits: they are read by a parser of their own. Undefined where anything is amiss. */
function readParts(value: unknown): Result<Design> | undefined {
  if (typeof value !== 'object' || value === null || !('circuits' in value)) return undefined;
  const circuits = fineCircuits(value.circuits);
  if (circuits === undefined) return undefined;
  const rest = designSchema.safeParse({ ...value, circuits: [] });
  return rest.success ? { ok: true, value: { ...rest.data, circuits } } : undefined;
}

/**
 * Judges a design that was made from a valid one by the same rules, parsing only the circuits that are not the same ones as
 * before: what an edit costs does not grow with the survey. What it finds, `readDesign` would find.
 */
export function rereadDesign(
  before: Design,
  after: Design,
  catalogue: readonly EquipmentType[],
): Result<Design> {
  const known = new Set(before.circuits);
  const changed = after.circuits.filter((circuit) => !known.has(circuit));
  const parsed = designSchema.safeParse({ ...after, circuits: changed }, { reportInput: true });
  const ids = new Set(after.circuits.map((circuit) => circuit.id));
  // The rare cases in which a part cannot stand for the whole are judged in full.
  if (!parsed.success || ids.size !== after.circuits.length || after.circuits.length > MOST_CIRCUITS)
    return readDesign(after, catalogue);
  const problems = referenceProblems(after, catalogue);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: after };
}

/** The circuits that edits change inside of themselves; undefined where they touch anything else. */
function circuitsTouched(edits: readonly Edit[]): ReadonlySet<string> | undefined {
  const ids = new Set<string>();
  for (const { op, path } of edits) {
    const [root, id, field] = path;
    if (root !== 'circuits' || id === undefined || field === undefined || field === 'id') return undefined;
    // Rows that come into a circuit or leave it are changes inside of it as well.
    if (op !== 'set' && path.length < 4 && !(op === 'order' && path.length === 3)) return undefined;
    ids.add(id);
  }
  return ids;
}

/** Where circuits stand. One is looked for until it is found; many are found in one pass. */
function placesOf({ circuits }: Design, ids: ReadonlySet<string>): number[] {
  const [first] = ids;
  if (ids.size === 1) return [circuits.findIndex(({ id }) => id === first)];
  return circuits.flatMap(({ id }, at) => (ids.has(id) ? [at] : []));
}

/**
 * Judges a design that edits have made from a valid one, on what they touch: where they stay inside of circuits, only those circuits
 * are parsed and followed. What it finds, `readDesign` would find.
 */
export function rereadTouched(
  before: Design,
  after: Design,
  edits: readonly Edit[],
  catalogue: readonly EquipmentType[],
): Result<Design> {
  const ids = circuitsTouched(edits);
  if (ids === undefined) return rereadDesign(before, after, catalogue);
  const touched = placesOf(after, ids);
  const rules = circuitRules(after.circuits.length);
  const isFine = touched.every((at) => rules.safeParse(after.circuits[at]).success);
  if (!isFine || referenceProblems(after, catalogue, touched).length > 0) return readDesign(after, catalogue);
  return { ok: true, value: after };
}

/** The same, from text. Text that is not JSON, or is too long to be a design, is a problem and not an exception. */
export function readDesignText(text: string, catalogue: readonly EquipmentType[]): Result<Design> {
  const refuse = (message: string): Result<Design> => ({
    ok: false,
    problems: [{ path: [], message } satisfies Problem],
  });
  if (text.length > MAX_DOCUMENT_LENGTH) {
    return refuse(
      `this file has ${Math.round(text.length / 1e6)} million characters; a design has at most ${MAX_DOCUMENT_LENGTH / 1e6} million`,
    );
  }
  const tooMuch = sizeProblem(text);
  if (tooMuch !== undefined) return refuse(tooMuch);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return refuse(`this is not JSON: ${error instanceof Error ? error.message : 'it could not be read'}`);
  }
  return readDesign(value, catalogue);
}

/** A new, empty document. Everything a person has not said is absent. */
export function emptyDesign(name: string): Design {
  return {
    format: FORMAT,
    name,
    site: {},
    circuits: [],
    partitions: [],
    stacks: [],
    generators: [],
    arrays: [],
    controllers: [],
    devices: [],
    instruments: [],
    earthPoints: [],
    startCases: [],
    meters: [],
    delivery: [],
    defaults: [],
    accepted: [],
    types: [],
  };
}
