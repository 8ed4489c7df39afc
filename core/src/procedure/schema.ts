import { z } from 'zod';

/** A band of allowed values; an end that is absent is open. */
const band = z.strictObject({ low: z.number().optional(), high: z.number().optional() });
export type Band = z.infer<typeof band>;

/** One thing to read or confirm, with what the model expects. */
export const readingSpec = z.strictObject({
  id: z.string(),
  label: z.string(),
  unit: z.string(),
  kind: z.enum(['number', 'confirmation']),
  instrument: z.string(),
  /** What the model says; the middle of the gauge. */
  nominal: z.number().optional(),
  expected: band.optional(),
  /** Outside this the step is stopped and made safe. */
  abort: band.optional(),
  /** What is not known in the design, so that the reading is kept but not judged. */
  missing: z.array(z.string()),
});
export type ReadingSpec = z.infer<typeof readingSpec>;

export const SECTIONS = [
  'gates',
  'power-up',
  'live',
  'island',
  'protection',
  'load',
  'start',
  'generator',
  'return',
  'endurance',
] as const;

export const procedureStep = z.strictObject({
  id: z.string(),
  section: z.enum(SECTIONS),
  title: z.string(),
  instructions: z.array(z.string()),
  cautions: z.array(z.string()),
  readings: z.array(readingSpec),
  abortText: z.string().optional(),
});
export type ProcedureStep = z.infer<typeof procedureStep>;

/** The islanding test of one design, as it stood when it was generated. */
export const procedureSchema = z.strictObject({
  format: z.literal(1),
  /** What stood between the design and its test, in a sentence. */
  verdict: z.string().optional(),
  /** Findings that somebody took responsibility for. */
  accepted: z
    .array(z.strictObject({ finding: z.string(), by: z.string(), reason: z.string(), at: z.string() }))
    .optional(),
  /** What stood in the cabinets: serial numbers and firmware, as recorded in the design. */
  equipment: z
    .array(z.strictObject({ what: z.string(), type: z.string(), serial: z.string(), firmware: z.string() }))
    .optional(),
  /** A partial retest: the run and revision that it follows, and how many steps of the whole test are not in it. */
  retest: z
    .strictObject({ run: z.number().int(), revision: z.number().int(), leftOut: z.number().int() })
    .optional(),
  /** Steps that the design makes needless, with the reason. */
  leftOut: z.array(z.strictObject({ what: z.string(), why: z.string() })).optional(),
  steps: z.array(procedureStep),
});
export type Procedure = z.infer<typeof procedureSchema>;
