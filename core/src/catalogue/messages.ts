import { z } from 'zod';

/** Moments of the way from dead to live, and of the first island, at which a type tells something, in their usual order. */
export const MESSAGE_MOMENTS = [
  'wake',
  'battery-on',
  'inverter-on',
  'firmware',
  'settings',
  'grid-on',
  'self-check',
  'pv-on',
  'live-on-grid',
  'island',
  'black-start',
] as const;
export type MessageMoment = (typeof MESSAGE_MOMENTS)[number];

/** A lamp, a code or a line of a display: when it comes, and whether it is right, goes away later, or means stop. */
export const typeMessage = z
  .strictObject({
    text: z.string().min(1).max(120).describe('As it is shown, or the lamp in words.'),
    at: z.enum(MESSAGE_MOMENTS),
    means: z.enum(['right', 'clears', 'stop']),
    until: z.enum(MESSAGE_MOMENTS).optional().describe('Of one that clears: by when it must be gone.'),
  })
  .refine(({ means, until }) => (means === 'clears') === (until !== undefined), {
    path: ['until'],
    message: 'is stated for a message that clears, and for no other',
  })
  .refine(
    ({ at, until }) => until === undefined || MESSAGE_MOMENTS.indexOf(until) > MESSAGE_MOMENTS.indexOf(at),
    { path: ['until'], message: 'must come after the moment at which it is shown' },
  );
export type TypeMessage = z.infer<typeof typeMessage>;

export const typeMessages = z
  .array(typeMessage)
  .max(60)
  .optional()
  .describe('What it shows on the way from dead to live.');
