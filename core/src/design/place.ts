import { z } from 'zod';
import { entities, id, name, nonNegative, positive } from '../values/quantities.ts';

const metres = z.number().min(-50).max(50);
const sizeM = positive.max(50);

export const obstacleKind = z.enum([
  'window',
  'door',
  'gas-meter',
  'combustible',
  'heat-source',
  'sunlit',
  'wet',
  'pipe',
  'other',
]);
export type ObstacleKind = z.infer<typeof obstacleKind>;

const rectangle = { xM: metres, yM: metres, widthM: sizeM, heightM: sizeM };

/** What hangs on the wall: a unit or module of a stack, or a board, switch or box with a name of its own. */
const mounted = z.strictObject({
  id,
  name: name.optional(),
  part: z.enum(['unit', 'module', 'box']),
  stackId: id.optional(),
  partId: id.optional().describe('The unit or module of that stack.'),
  xM: metres.describe('Left edge, from the datum.'),
  yM: metres.describe('Lower edge, above the datum (finished floor).'),
  widthM: sizeM.optional().describe('For a box: its own size.'),
  heightM: sizeM.optional(),
  massKg: positive.max(2000).optional(),
  tiltDeg: z.number().min(0).max(90).optional().describe('How far it leans from the vertical.'),
});

/**
 * The wall where the gear stands, in metres from one datum: x to the right, y upwards from the finished floor. Routes
 * run along the wall between two mounted things by the points given.
 */
export const place = z.strictObject({
  wall: z
    .strictObject({
      widthM: sizeM.optional(),
      heightM: sizeM.optional(),
      surface: z.enum(['fire-resistant', 'combustible']).optional(),
      exposure: z.enum(['indoors', 'sheltered', 'outdoors']).optional(),
      loadLimitKg: positive.max(100000).optional().describe('What the wall may carry in all.'),
      fixingLimitKg: positive.max(5000).optional().describe('What one fixing may carry.'),
      frontFreeM: nonNegative
        .max(50)
        .optional()
        .describe('Free in front of the wall, to what stands opposite or swings open.'),
    })
    .optional(),
  datum: name.optional().describe('Where x = 0 and y = 0 are, in words.'),
  mounted: entities(mounted, 200),
  obstacles: entities(z.strictObject({ id, name: name.optional(), kind: obstacleKind, ...rectangle }), 100),
  routes: entities(
    z.strictObject({
      id,
      name: name.optional(),
      fromId: id,
      toId: id,
      points: z.array(z.strictObject({ xM: metres, yM: metres })).max(50),
      equalSet: z.string().min(1).max(20).optional().describe('Routes of one set are cut to the longest.'),
      serviceLoopM: nonNegative.max(20).optional(),
    }),
    200,
  ),
});
export type Place = z.infer<typeof place>;
export type Mounted = Place['mounted'][number];
export type Obstacle = Place['obstacles'][number];
export type Route = Place['routes'][number];
