import type { Result } from '../values/problem.ts';
import { applyEdits } from './applyEdits.ts';
import type { Edit } from './edits.ts';
import { migrate, type Migration, MIGRATIONS } from './migrate.ts';

/** Edits that were stored together, and the format of the documents they were made on. */
export interface StoredEdits {
  readonly design: number;
  readonly edits: readonly Edit[];
}

/**
 * Lays stored edits over a stored document, in order. Each finds the document in the format it was made on: where the workbench was
 * renewed between two of them, the document takes the steps between the formats at that place. What comes out is to be read.
 */
export function replay(
  document: unknown,
  batches: readonly StoredEdits[],
  migrations: readonly Migration[] = MIGRATIONS,
): Result<unknown> {
  let now = document;
  for (const { design, edits } of batches) {
    const ready = migrate(now, migrations, design);
    if (!ready.ok) return ready;
    const laid = applyEdits(ready.value, edits);
    if (!laid.ok) return laid;
    now = laid.value;
  }
  return { ok: true, value: now };
}
