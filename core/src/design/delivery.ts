import { z } from 'zod';
import { entities, id, name, note, positive } from '../values/quantities.ts';

/** Ticks on the generated lists: delivery, preparation, terminations. What must be there follows from the design; this is what was found. */
export const delivery = entities(
  z.strictObject({
    id,
    state: z.enum(['ready', 'damaged', 'missing']).optional().describe('Absent: not looked at.'),
    note: note.optional(),
    torqueNm: positive.max(500).optional().describe('Of a termination, as the wrench has shown it.'),
    read: z
      .string()
      .trim()
      .min(1)
      .max(60)
      .optional()
      .describe(
        'What a display or an instrument shows there: a setting read back, an idle voltage, a length as built.',
      ),
    photoIds: z.array(z.number().int().positive()).max(20).optional().describe('Attachments of the job.'),
    by: name.optional().describe('Who looked last; written by the server.'),
    at: z.iso.datetime({ offset: true }).optional().describe('When; written by the server.'),
  }),
  12_000,
);
export type DeliveryTick = z.infer<typeof delivery>[number];
