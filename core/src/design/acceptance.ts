import { z } from 'zod';
import { id, name } from '../values/quantities.ts';

/**
 * A finding that a person takes responsibility for. It holds the figures that were accepted: when those become worse, the
 * acceptance no longer counts.
 */
export const acceptance = z.strictObject({
  id,
  check: z.string().min(1).max(60).describe('Which check found it.'),
  subject: z
    .strictObject({ kind: z.string().min(1).max(30), id: z.string().min(1).max(300) })
    .describe('What it was found about.'),
  state: z.enum(['over', 'unknown']),
  margin: z
    .number()
    .optional()
    .describe('Share of the limit that was left, negative when over; the worst of all modes.'),
  missing: z.array(z.string().min(1).max(300)).max(200).describe('What was not known when it was accepted.'),
  words: z
    .array(z.string().max(2000))
    .max(40)
    .optional()
    .describe('What was found in words, where no share of a limit tells worse from better.'),
  reason: z.string().trim().min(3).max(500),
  by: name.describe('Who accepted it.'),
  at: z.iso.datetime({ offset: true }),
});
export type Acceptance = z.infer<typeof acceptance>;
