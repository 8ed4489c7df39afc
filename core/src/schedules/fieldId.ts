const FNV_PRIME = 0x01000193;

/** Kinds of notes made on site: termination, link of comms, setting, as built. */
type FieldKind = 't' | 'k' | 's' | 'b';

/** A short id for what is noted of a row on site: the same as long as the row's own id is (two FNV-1a words). */
export function fieldId(kind: FieldKind, rowId: string): string {
  let one = 0x811c9dc5;
  let two = 0x9dc5811c;
  for (let at = 0; at < rowId.length; at += 1) {
    const code = rowId.charCodeAt(at);
    one = Math.imul(one ^ code, FNV_PRIME) >>> 0;
    two = Math.imul(two ^ (code + at), FNV_PRIME) >>> 0;
  }
  return `${kind}-${one.toString(36)}${two.toString(36)}`;
}
