import { z } from 'zod';
import { INSULATIONS, METHODS } from '../codes/cableKinds.ts';
import { insulationsOf } from '../codes/ampacity.ts';
import { id, name, positive, temperatureC } from '../values/quantities.ts';

const responsible = {
  id,
  reason: z.string().trim().min(3).max(500),
  by: name.describe('Who has put it there.'),
  at: z.iso.datetime({ offset: true }),
};

const METRIC: readonly string[] = insulationsOf('metric');

/** A value that a licensed person puts in place of one of the code tables, for this job and by name. */
export const tableValue = z.discriminatedUnion('table', [
  z
    .strictObject({
      ...responsible,
      table: z.literal('ampacity'),
      insulation: z.enum(INSULATIONS),
      areaMm2: positive.max(1000),
      method: z
        .enum(METHODS)
        .optional()
        .describe('Of a metric insulation; the North American table has none.'),
      loadedConductors: z.union([z.literal(2), z.literal(3)]).optional(),
      value: positive.max(5000).describe('What one conductor carries before any factor, A.'),
    })
    .refine(({ insulation, method }) => METRIC.includes(insulation) === (method !== undefined), {
      path: ['method'],
      message: 'is stated for a metric insulation, and for no other',
    })
    .refine(
      ({ insulation, loadedConductors }) => METRIC.includes(insulation) === (loadedConductors !== undefined),
      { path: ['loadedConductors'], message: 'is stated for a metric insulation, and for no other' },
    ),
  z.strictObject({
    ...responsible,
    table: z.literal('ambient'),
    insulation: z.enum(INSULATIONS),
    upTo: temperatureC.describe('Hottest air that it holds for.'),
    value: positive.max(2),
  }),
  z.strictObject({
    ...responsible,
    table: z.literal('grouping'),
    upTo: z
      .number()
      .int()
      .min(1)
      .max(60)
      .describe('Circuits bunched, or conductors in the raceway, up to so many.'),
    value: positive.max(1),
  }),
]);
