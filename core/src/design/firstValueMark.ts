import { z } from 'zod';

/** A mark on a field that was filled by the program: its place, with "/" between the steps. */
export const firstValue = z.strictObject({
  id: z
    .string()
    .regex(/^[A-Za-z0-9_-]+(\/[A-Za-z0-9_-]+)*$/, 'must be the place of a field, with "/" between its steps')
    .max(300),
});
