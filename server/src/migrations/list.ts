import { firstTables } from './001-first-tables.ts';
import { variantsLibraryPhotos } from './002-variants-library-photos.ts';
import { equipmentTypes } from './003-equipment-types.ts';
import { onceOnly } from './004-once-only.ts';
import { accountsOfAFirm } from './005-accounts.ts';
import { lightEdits } from './006-light-edits.ts';
import { photosAndHealth } from './007-photos-and-health.ts';
import { sourceOfReadings } from './008-source-of-readings.ts';
import { captures } from './009-captures.ts';
import type { NamedMigration } from './migration.ts';

/** Every migration, in order. A migration that has shipped is never changed. */
export const MIGRATIONS: readonly NamedMigration[] = [
  firstTables,
  variantsLibraryPhotos,
  equipmentTypes,
  onceOnly,
  accountsOfAFirm,
  lightEdits,
  photosAndHealth,
  sourceOfReadings,
  captures,
];
