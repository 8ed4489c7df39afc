import { z } from 'zod';

/** Building blocks of the document's schema: every number states its range, so impossible values are refused at the door. */
export const id = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9_-]{0,39}$/, 'must be a short id of letters, digits, "-" and "_"')
  .describe('Short id, unique in its list.');
export const name = z.string().min(1).max(120);
export const note = z.string().max(4000);
export const positive = z.number().positive();
export const nonNegative = z.number().nonnegative();
export const fraction = z.number().min(0).max(1);
export const temperatureC = z.number().min(-60).max(90);
export const count = z.number().int().min(1).max(512);
export const line = z.enum(['L1', 'L2', 'L3']);
export type Line = z.infer<typeof line>;

/** A list of entities with unique ids. The id is how edits and findings name them. */
export function entities<T extends z.ZodType<{ id: string }>>(entity: T, most: number) {
  return z
    .array(entity)
    .max(most)
    .superRefine((list, context) => {
      const seen = new Set<string>();
      list.forEach((one, index) => {
        if (seen.has(one.id)) {
          context.addIssue({
            code: 'custom',
            path: [index, 'id'],
            message: `is "${one.id}", which another entry of this list already has`,
          });
        }
        seen.add(one.id);
      });
    });
}
