import type { Mounted, Obstacle, Place } from '../design/place.ts';
import type { Design } from '../design/schema.ts';

/**
 * Gives the base design a dry, fire-resistant wall of 3 m by 2.4 m with its unit at (1, 1). The unit is 0.46 m by 0.56 m and
 * 24 kg with four holes; it wants 0.2 m at its sides, 0.3 m above and 0.5 m below, and 0.5 m to 1.8 m above the floor.
 */
export function addWall(design: Design, over: Partial<Place> = {}): Place {
  const place: Place = {
    wall: {
      widthM: 3,
      heightM: 2.4,
      surface: 'fire-resistant',
      exposure: 'indoors',
      loadLimitKg: 200,
      fixingLimitKg: 10,
    },
    mounted: [unitAt(1, 1)],
    obstacles: [],
    routes: [],
    ...over,
  };
  design.place = place;
  return place;
}

export const unitAt = (xM: number, yM: number): Mounted => ({
  id: 'w1',
  part: 'unit',
  stackId: 's',
  partId: 'u1',
  xM,
  yM,
});

export const boxAt = (xM: number, yM: number, widthM: number, heightM: number, massKg?: number): Mounted => ({
  id: 'w2',
  name: 'Switch box',
  part: 'box',
  xM,
  yM,
  widthM,
  heightM,
  ...(massKg === undefined ? {} : { massKg }),
});

export const obstacleAt = (
  kind: Obstacle['kind'],
  xM: number,
  yM: number,
  widthM = 0.5,
  heightM = 0.5,
): Obstacle => ({
  id: 'o1',
  kind,
  xM,
  yM,
  widthM,
  heightM,
});
