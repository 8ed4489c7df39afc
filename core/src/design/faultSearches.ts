import { z } from 'zod';
import { entities, id, name, note } from '../values/quantities.ts';

/** Searches for a fault as they were gone: what was seen, what was measured, and what it was. */
export const faultSearches = entities(
  z.strictObject({
    id,
    symptom: z.string().min(1).max(60),
    answers: z
      .array(
        z.strictObject({
          measurementId: z.string().min(1).max(300),
          isAsExpected: z.boolean(),
          words: z
            .string()
            .max(1000)
            .describe('What was measured where, and how it stood, as it was told then.'),
        }),
      )
      .max(60),
    left: z.array(z.string().max(500)).max(60).describe('What could still be wrong after the last of them.'),
    found: note.optional().describe('What it was, and how it was mended.'),
    by: name.optional().describe('Who searched; written by the server.'),
    at: z.iso.datetime({ offset: true }).optional().describe('When; written by the server.'),
  }),
  500,
);
export type LoggedSearch = z.infer<typeof faultSearches>[number];
