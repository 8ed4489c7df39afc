import { z } from 'zod';
import { fraction, id, name, nonNegative, note, positive, temperatureC } from '../values/quantities.ts';

/** What every type has. */
export const common = {
  id,
  version: z.number().int().min(1),
  name,
  note: note.optional(),
  inTheBox: z.array(z.string().min(1).max(120)).max(20).optional().describe('What comes with one of them.'),
};

export const yesNo = z.enum(['yes', 'no']);

/** A name printed beside a socket or terminal. */
export const portName = z.string().min(1).max(30);

const clearM = nonNegative.max(5);

export const ENTRY_SIDES = ['top', 'bottom', 'left', 'right', 'back'] as const;

/** What a type is as a thing on a wall or a floor. */
export const bodySchema = z.strictObject({
  widthM: positive.max(5),
  heightM: positive.max(5),
  depthM: positive.max(3),
  mount: z.enum(['wall', 'floor']),
  clearSidesM: clearM,
  clearAboveM: clearM,
  clearBelowM: clearM,
  clearFrontM: clearM,
  heightAboveFloorM: z.strictObject({ min: nonNegative.max(10), max: nonNegative.max(10) }).optional(),
  wetRated: z.enum(['indoors', 'sheltered', 'outdoors']),
  largestTiltDeg: nonNegative
    .max(90)
    .optional()
    .describe('From the vertical; 0 where it must stand upright.'),
  entries: z
    .array(
      z.strictObject({
        side: z.enum(ENTRY_SIDES),
        diameterMm: positive.max(500),
        count: z.number().int().min(1).max(60),
      }),
    )
    .max(20)
    .optional()
    .describe('Holes for glands and conduits.'),
  drilling: z
    .array(z.strictObject({ xM: nonNegative.max(5), yM: nonNegative.max(5), diameterMm: positive.max(50) }))
    .max(24)
    .describe('Hole centres from the lower left corner.'),
});
export type Body = z.infer<typeof bodySchema>;

export const placing = { massKg: positive.optional(), body: bodySchema.optional() };

/** Points must rise along their first column, or interpolation has no meaning. */
export function rising<T>(points: readonly T[], key: (point: T) => number): boolean {
  return points.every((point, index) => index === 0 || key(point) > key(points[index - 1] as T));
}

export const deratingPoints = z
  .array(z.strictObject({ ambientC: temperatureC, factor: fraction }))
  .min(1)
  .max(12)
  .refine((points) => rising(points, (point) => point.ambientC), 'must list temperatures in rising order');

/** Longest time at each multiple of the rated current or power. */
export const timeCurve = z
  .array(z.strictObject({ multiple: z.number().gt(1).max(20), maxS: positive.max(86400) }))
  .min(1)
  .max(12)
  .refine((points) => rising(points, (point) => point.multiple), 'must list multiples in rising order')
  .refine((points) => rising(points, (point) => -point.maxS), 'must allow less time at each higher multiple');

/** Current into a short circuit, as a multiple of the rated current, and for how long it lasts. */
export const shortCircuit = z.strictObject({ multiple: positive.max(50), lastsMs: positive.max(60000) });

/** What a terminal wants of whoever lands a conductor in it, beside its range. */
const landingFields = {
  stripMm: positive.max(100).optional(),
  torqueNm: positive.max(200).optional(),
  ends: z
    .array(z.enum(['bare', 'ferrule', 'ring', 'fork', 'pin', 'plug']))
    .min(1)
    .optional()
    .describe('pin: a pressed contact that goes into a socket; plug: one of its polarity.'),
  mostConductors: z.number().int().min(1).max(12).optional(),
  earthFirst: yesNo.optional().describe('Whether its earth is landed before all others.'),
  earthMinMm2: positive
    .max(1000)
    .optional()
    .describe('Thinnest earth, where its terminal is another than those of the lines.'),
  earthMaxMm2: positive.max(1000).optional().describe('Thickest earth there.'),
  earthTorqueNm: positive.max(200).optional(),
  ferrite: yesNo.optional().describe('Whether a ferrite core goes over the conductors.'),
  coverTorqueNm: positive.max(50).optional().describe('Of the screws of the cover that goes back on.'),
};

/** The same where any of it may be missing. */
export const partialTerminal = {
  minMm2: positive.max(1000).optional(),
  maxMm2: positive.max(1000).optional(),
  ...landingFields,
};

const terminalRow = z
  .strictObject({
    port: portName,
    minMm2: positive.max(1000),
    maxMm2: positive.max(1000),
    ...landingFields,
  })
  .refine((one) => one.minMm2 <= one.maxMm2, 'needs its smallest conductor below its largest');
export type TerminalRow = z.infer<typeof terminalRow>;

/** Which pins of a comms port carry which core of a bus, and how far its cable may reach. */
const commsPin = z.strictObject({
  port: portName,
  plus: z.string().min(1).max(12).describe('Pin or terminal of the positive core, as printed.'),
  minus: z.string().min(1).max(12),
  ground: z.string().min(1).max(12).optional(),
  longestM: positive.max(2000).optional().describe('Longest cable from it.'),
});
export type CommsPin = z.infer<typeof commsPin>;
export const commsPins = z.array(commsPin).max(12).optional();

/** How a thing can be joined to the network of the building, and by which of its sockets. */
export const networkJoin = {
  networkBy: z.enum(['cable', 'radio', 'either', 'none']).optional(),
  networkPort: portName.optional(),
};

/** What goes into the terminals of each port. */
export const terminals = z.array(terminalRow).max(12).optional();

export const windowV = z
  .strictObject({ min: positive.max(2000), max: positive.max(2000) })
  .refine((window) => window.min < window.max, 'needs min below max');
