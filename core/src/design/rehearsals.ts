import { z } from 'zod';
import { entities, fraction, id, nonNegative } from '../values/quantities.ts';

const share = fraction;

const common = {
  id,
  stackId: id,
  revision: z.number().int().min(0).describe('Of the document when it was played.'),
  plantKey: z
    .string()
    .min(1)
    .max(40)
    .describe('Of the figures that it was played from; another one tells that the design has moved on.'),
};

const outage = z.strictObject({
  ...common,
  played: z.literal('outage'),
  startH: nonNegative.lt(24),
  hours: nonNegative.gt(0).max(336),
  month: z.number().int().min(1).max(12),
  clearness: share,
  fromFull: z.boolean(),
  seed: z.number().int().optional().describe('Of the chance on its load; averages without it.'),
  lose: z
    .strictObject({ what: z.enum(['unit', 'module']), atH: nonNegative.max(336), unitId: id.optional() })
    .optional(),
  lastedH: nonNegative,
  lowestSoc: z.number().min(-0.01).max(1.01),
  servedKwh: nonNegative,
  unservedKwh: nonNegative,
  generatorH: nonNegative,
  litres: nonNegative,
  state: z.enum(['within', 'over', 'unknown', 'tight']),
  words: z.string().max(600).describe('What came of it, as it was told then.'),
});

const nights = z.strictObject({
  ...common,
  played: z.literal('nights'),
  seed: z.number().int(),
  nights: z.number().int().min(10).max(100_000),
  patternId: z.string().min(1).max(20),
  typedHours: z.array(nonNegative.gt(0).max(336)).max(60).optional(),
  fromFull: z.boolean(),
  carried: share,
  toTarget: share.optional(),
  boards: z
    .array(z.strictObject({ name: z.string().max(120), worst1: share, worst5: share, middle: share }))
    .max(64),
  unservedKwh: nonNegative,
  generatorH: nonNegative,
  generatorStarts: nonNegative,
  litres: nonNegative,
  overloaded: share,
  bands: z
    .array(
      z.strictObject({
        hour: nonNegative.max(336),
        dark: share,
        soc: z.array(z.number().min(-0.01).max(1.01)).length(5),
      }),
    )
    .max(20)
    .optional()
    .describe(
      'State of charge at some hours: worst 5 and 25 of 100, middle, and what 25 and 5 are better than.',
    ),
});

/** Rehearsals that somebody keeps: how they were asked for, and what came of them. They can be played again to the last bit. */
export const rehearsals = entities(z.discriminatedUnion('played', [outage, nights]), 60);
export type KeptRehearsal = z.infer<typeof rehearsals>[number];
