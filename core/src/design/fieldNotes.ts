import { diff, type Edit } from './edits.ts';
import type { DeliveryTick } from './delivery.ts';
import type { LoggedSearch } from './faultSearches.ts';
import type { Circuit, ClampReading, Design } from './schema.ts';

/** What a field electrician may write into a design: ticks of the delivery list, clamp readings, and how a fault was searched. */
export function isFieldNote({ path }: Edit): boolean {
  return (
    path[0] === 'delivery' ||
    path[0] === 'faultSearches' ||
    (path[0] === 'circuits' && path[2] === 'clampReadings')
  );
}

/** Taking responsibility, for a finding or for a value in place of one of a code table, or taking that back: for the approver alone. */
export const isResponsibility = ({ path }: Edit): boolean =>
  path[0] === 'accepted' || path[0] === 'tableValues';

/** Everything that changes the design itself. */
export const isDesignWork = (edit: Edit): boolean => !isResponsibility(edit);

/** Whose a note is. A tick that was made before names were kept with them is nobody's: whoever takes it up next owns it. */
export const isOthers = (note: { readonly by?: string | undefined }, by: string): boolean =>
  note.by !== undefined && note.by !== by;

type FieldNote = DeliveryTick | ClampReading | LoggedSearch;

/** A note as it stands before and after edits. */
interface Change {
  readonly path: readonly string[];
  readonly timeField: 'at' | 'takenAt';
  readonly before: FieldNote | undefined;
  readonly after: FieldNote | undefined;
}

function pairs(
  before: readonly FieldNote[],
  after: readonly FieldNote[],
  path: readonly string[],
  timeField: Change['timeField'],
): Change[] {
  if (before === after) return [];
  const old = new Map(before.map((note) => [note.id, note]));
  const left = new Set(after.map(({ id }) => id));
  return [
    ...after.map((note) => ({ path: [...path, note.id], timeField, before: old.get(note.id), after: note })),
    ...before
      .filter(({ id }) => !left.has(id))
      .map((note) => ({ path: [...path, note.id], timeField, before: note, after: undefined })),
  ].filter((change) => diff(change.before ?? {}, change.after ?? {}).length > 0);
}

/** The notes that edits have changed. Only what the edits name is looked at. */
function changedNotes(before: Design, after: Design, edits: readonly Edit[]): Change[] {
  const notes = edits.filter(isFieldNote);
  if (notes.length === 0) return [];
  const lists = new Set(notes.map(({ path }) => path[0]));
  const touched = new Set(notes.flatMap(({ path }) => (path[0] === 'circuits' ? [path[1]] : [])));
  const readings = ({ circuits }: Design): Map<string, Circuit['clampReadings']> =>
    new Map(circuits.filter(({ id }) => touched.has(id)).map((one) => [one.id, one.clampReadings]));
  const [old, now] = [readings(before), readings(after)];
  return [
    ...(lists.has('delivery') ? pairs(before.delivery, after.delivery, ['delivery'], 'at') : []),
    ...(lists.has('faultSearches')
      ? pairs(before.faultSearches ?? [], after.faultSearches ?? [], ['faultSearches'], 'at')
      : []),
    ...[...now].flatMap(([id, list]) =>
      pairs(old.get(id) ?? [], list ?? [], ['circuits', id, 'clampReadings'], 'takenAt'),
    ),
  ];
}

/** The first note of somebody else that edits change or take away; undefined where they leave all of those alone. */
export function othersNote(
  before: Design,
  after: Design,
  edits: readonly Edit[],
  by: string,
): { readonly path: readonly string[]; readonly by: string } | undefined {
  for (const { path, before: note } of changedNotes(before, after, edits))
    if (note?.by !== undefined && isOthers(note, by)) return { path, by: note.by };
  return undefined;
}

/**
 * What a server adds to edits: every note that they make or change carries the name of whoever made them, and the server's time.
 *
 * @param mayRestore whether a note that comes with the name of somebody else keeps it: for designers, who undo a removal.
 */
export function noteStamps(
  before: Design,
  after: Design,
  edits: readonly Edit[],
  stamp: { readonly by: string; readonly at: string; readonly mayRestore: boolean },
): Edit[] {
  const { by, at, mayRestore } = stamp;
  const set = (path: readonly string[], field: string, from: string | undefined, to: string): Edit[] =>
    from === to
      ? []
      : [
          {
            op: 'set',
            path: [...path, field],
            ...(from === undefined ? {} : { before: from }),
            after: to,
          },
        ];
  return changedNotes(before, after, edits).flatMap(({ path, timeField, before: old, after: note }) => {
    if (note === undefined) return [];
    if (old === undefined && mayRestore && isOthers(note, by)) return [];
    const time = 'takenAt' in note ? note.takenAt : note.at;
    return [...set(path, 'by', note.by, by), ...set(path, timeField, time, at)];
  });
}

/** Whether an edit is one that a server adds. */
export function isNoteStamp(edit: Edit): boolean {
  const field = edit.path.at(-1);
  return edit.op === 'set' && isFieldNote(edit) && (field === 'by' || field === 'at' || field === 'takenAt');
}
