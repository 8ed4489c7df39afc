import { z } from 'zod';
import { equipmentType } from '../catalogue/schema.ts';
import { editSchema } from '../design/edits.ts';
import { itemSchema } from '../design/schema.ts';
import { procedureSchema } from '../procedure/schema.ts';
import { role } from './roles.ts';

/** What web and server say to each other. Both import these; neither imports the other. */
export const userInfo = z.object({
  id: z.number().int(),
  name: z.string(),
  email: z.string(),
  role,
  firm: z.string(),
});
export type UserInfo = z.infer<typeof userInfo>;

export const demoUsers = z.object({
  enabled: z.boolean(),
  users: z.array(z.object({ id: z.number().int(), name: z.string(), role })),
});

export const jobSummary = z.object({
  id: z.number().int(),
  name: z.string(),
  revision: z.number().int(),
  changedAt: z.string(),
  changedBy: z.string(),
  /** What stands between the job and its test, and how many causes there are in each state. */
  verdict: z.string(),
  counts: z.object({ over: z.number(), tight: z.number(), unknown: z.number(), within: z.number() }),
  stage: z.string(),
});
export type JobSummary = z.infer<typeof jobSummary>;

export const jobDocument = z.object({
  id: z.number().int(),
  name: z.string(),
  revision: z.number().int(),
  document: z.unknown(),
  canEdit: z.boolean(),
  /** May tick the delivery list and log clamp readings. */
  canNote: z.boolean(),
  canTest: z.boolean(),
  /** May take responsibility for a finding by name. */
  canAccept: z.boolean(),
});
export type JobDocument = z.infer<typeof jobDocument>;

export const editBatch = z.strictObject({
  baseRevision: z.number().int().min(0),
  editId: z.string().min(8).max(64),
  patches: z.array(editSchema).min(1).max(20000),
});
export type EditBatch = z.infer<typeof editBatch>;

export const saved = z.object({
  revision: z.number().int(),
  /** The server has written names and times into notes: what is stored is not quite what was sent. */
  isStamped: z.boolean().optional(),
});
export type Saved = z.infer<typeof saved>;

/** One saved state of a job, for the list. */
export const revisionRow = z.object({
  revision: z.number().int(),
  by: z.string(),
  at: z.string(),
  /** How many places were changed, and on which pages they are typed. */
  changes: z.number().int(),
  pages: z.array(z.string()),
});
export type RevisionRow = z.infer<typeof revisionRow>;

/** Revisions, the latest first. `before`: ask with it for those that are older; null where there are none. */
export const revisionList = z.object({ rows: z.array(revisionRow), before: z.number().int().nullable() });
export type RevisionList = z.infer<typeof revisionList>;

/** The design as it was at a revision. */
export const revisionDocument = z.object({
  revision: z.number().int(),
  name: z.string(),
  document: z.unknown(),
});
export type RevisionDocument = z.infer<typeof revisionDocument>;

/** Restoring says which revision is believed to be the latest: where it is not any more, nothing is replaced. */
export const restoreRevision = z.strictObject({ replaces: z.number().int().min(1) });

const problem = z.object({ path: z.array(z.union([z.string(), z.number()])), message: z.string() });

/** Every refusal has this shape: a stable code to act on and a sentence to show. */
export const refusal = z.object({
  code: z.string(),
  message: z.string(),
  problems: z.array(problem).optional(),
  conflicts: z
    .array(
      z.object({ path: z.array(z.string()), theirs: z.unknown().optional(), yours: z.unknown().optional() }),
    )
    .optional(),
  revision: z.number().int().optional(),
  document: z.unknown().optional(),
});
export type Refusal = z.infer<typeof refusal>;

/** A run of some steps only, after a change: what an earlier run has shown of the others still stands. */
export const startRun = z.strictObject({
  retest: z
    .strictObject({ run: z.number().int().min(1), steps: z.array(z.string().max(120)).min(1).max(2000) })
    .optional(),
});
export type StartRun = z.infer<typeof startRun>;

export const newReading = z.strictObject({
  stepId: z.string().max(120),
  readingId: z.string().max(120),
  value: z.number(),
  attempt: z.number().int().min(1).max(99),
  /** The reading this one corrects; the earlier one is kept. */
  corrects: z.number().int().optional(),
  /** A reason to go on past a reading that failed. */
  note: z.string().max(1000).optional(),
  /** Where the figure came from, where no hand typed it: a capture, a device that is read live. It is no reason. */
  source: z.string().max(200).optional(),
  /** The capture it was taken from, where that is kept. */
  captureId: z.number().int().positive().optional(),
  /** Made on the device: the same key sent again is answered with what was recorded, and recorded once. */
  key: z.string().min(8).max(64).optional(),
});
export type NewReading = z.infer<typeof newReading>;

export const reading = z.object({
  id: z.number().int(),
  stepId: z.string(),
  readingId: z.string(),
  value: z.number(),
  attempt: z.number().int(),
  corrects: z.number().int().nullable(),
  note: z.string(),
  source: z.string(),
  captureId: z.number().int().nullable(),
  by: z.string(),
  at: z.string(),
});
export type Reading = z.infer<typeof reading>;

export const runState = z.enum(['running', 'finished', 'aborted']);

export const runSummary = z.object({
  id: z.number().int(),
  jobId: z.number().int(),
  number: z.number().int(),
  revision: z.number().int(),
  state: runState,
  reason: z.string(),
  startedBy: z.string(),
  startedAt: z.string(),
  endedAt: z.string().nullable(),
});
export type RunSummary = z.infer<typeof runSummary>;

export const testRun = runSummary.extend({ procedure: procedureSchema, readings: z.array(reading) });
export type TestRun = z.infer<typeof testRun>;

export const endRun = z.strictObject({
  state: z.enum(['finished', 'aborted']),
  reason: z.string().max(1000),
});

export const variant = z.object({
  jobId: z.number().int(),
  name: z.string(),
  isMain: z.boolean(),
  revision: z.number().int(),
});
export type Variant = z.infer<typeof variant>;

export const libraryItem = itemSchema.omit({ id: true });
export type LibraryItem = z.infer<typeof libraryItem>;
export const libraryEntry = z.object({ id: z.number().int(), item: libraryItem, addedBy: z.string() });
export type LibraryEntry = z.infer<typeof libraryEntry>;

/** What a firm keeps, with a sentence for each entry that cannot be read. */
export const library = z.object({ entries: z.array(libraryEntry), unreadable: z.array(z.string()) });
export type Library = z.infer<typeof library>;

export const ownType = z.object({ type: equipmentType, addedBy: z.string(), addedAt: z.string() });
export type OwnType = z.infer<typeof ownType>;

/** What a firm keeps beside the samples, and in how many jobs each type is used, samples too. */
export const catalogue = z.object({
  own: z.array(ownType),
  usage: z.record(z.string(), z.number().int()),
  /** A sentence for each type that cannot be read. */
  unreadable: z.array(z.string()),
});
export type Catalogue = z.infer<typeof catalogue>;

export const keepTypes = z.strictObject({ types: z.array(equipmentType).min(1).max(500) });

/** A capture as a job keeps it. */
export const capture = z.object({ id: z.number().int(), name: z.string(), bytes: z.number().int() });
export type Capture = z.infer<typeof capture>;

export const attachment = z.object({
  id: z.number().int(),
  name: z.string(),
  width: z.number().int(),
  height: z.number().int(),
  bytes: z.number().int(),
  addedBy: z.string(),
  addedAt: z.string(),
});
export type Attachment = z.infer<typeof attachment>;
