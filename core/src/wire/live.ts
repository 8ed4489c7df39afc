import { z } from 'zod';

const mapRow = z.strictObject({
  key: z.string().min(1).max(60),
  address: z.number().int().min(0).max(65534),
  type: z.enum(['u16', 's16', 'u32', 's32']),
  scale: z.number(),
  unit: z.string().max(20),
  access: z.enum(['read', 'write']),
  meaning: z.string().max(200),
});

/** A device to read live by Modbus TCP. Without rows of its own it is read by our register map. */
export const liveDevice = z.strictObject({
  host: z.string().min(1).max(253),
  port: z.number().int().min(1).max(65535),
  unitId: z.number().int().min(0).max(255),
  everyMs: z.number().int().min(200).max(60_000),
  rows: z.array(mapRow).min(1).max(5000).optional(),
});
export type LiveDevice = z.infer<typeof liveDevice>;

export const liveLink = z.object({ linkId: z.string() });

/** What is heard of a device: its figures, or why there are none. Nothing is carried over from before. */
export const liveMessage = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('figures'),
    at: z.string(),
    figures: z.record(z.string(), z.number().nullable()),
    /** Parts that the device refused while it answered the rest. */
    refused: z.array(z.string()),
  }),
  z.object({ kind: z.literal('lost'), at: z.string(), sentence: z.string() }),
]);
export type LiveMessage = z.infer<typeof liveMessage>;
