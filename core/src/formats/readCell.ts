/** What a cell of a sheet says: nothing where it is empty, or why it cannot be read. */
export type ReadCell<T> =
  { readonly ok: true; readonly value: T | undefined } | { readonly ok: false; readonly reason: string };
