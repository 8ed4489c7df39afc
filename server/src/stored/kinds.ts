import { editSchema, equipmentTypeSchema, procedureSchema, wire } from '@bastion/core';
import { z } from 'zod';
import { StoredKind, type StoredStep } from './storedKind.ts';

/** The value stays as it was kept; from here on its format stands beside it. */
const NUMBERED: StoredStep = { name: 'NumberTheFormat', up: (value) => value };

/** Edits that were made before their format was kept are of this format of documents, or of one that differs in nothing they touch. */
const DESIGN_BEFORE = 6;

/** Edits of a batch, with the format of the documents they were made on. */
export const EDITS = new StoredKind(
  'batch of edits',
  z.object({ design: z.number().int().positive(), edits: z.array(editSchema) }),
  [{ name: 'NumberTheFormat', up: (edits) => ({ design: DESIGN_BEFORE, edits }) }],
);

export const TYPE = new StoredKind('equipment type', equipmentTypeSchema, [NUMBERED]);
export const LIBRARY_ITEM = new StoredKind('library item', wire.libraryItem, [NUMBERED]);
export const PROCEDURE = new StoredKind('test procedure', procedureSchema, [NUMBERED]);
export const USED_TYPES = new StoredKind('list of types in use', z.array(z.string()), [NUMBERED]);

export const SUMMARY = new StoredKind(
  'summary',
  z.object({
    worst: z.string(),
    counts: z.object({ over: z.number(), tight: z.number(), unknown: z.number(), within: z.number() }),
    stage: z.string(),
  }),
  [NUMBERED],
);
export type Summary = ReturnType<typeof SUMMARY.mustRead>;

/** Every kind: a test reads an example of each format of each. */
export const STORED_KINDS = [EDITS, TYPE, LIBRARY_ITEM, PROCEDURE, USED_TYPES, SUMMARY] as const;
