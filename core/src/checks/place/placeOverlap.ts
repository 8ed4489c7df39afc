import { obstacleLabel, overlapM, type Rect } from '../../installation/place/wall.ts';
import { type Check, checkOf } from '../check.ts';
import { eachOnWall, wallSubject } from '../support/wall.ts';

/** Kinds that a thing may be mounted over; where it stands there is judged by exposure. */
const FLAT: ReadonlySet<string> = new Set(['sunlit', 'combustible', 'heat-source']);

/** Nothing on the wall may reach into another thing or an obstacle. */
export const placeOverlap: Check<'place.overlap'> = checkOf({
  id: 'place.overlap',
  title: 'Overlap on the wall',
  family: 'place',
  modes: 'once',
  sentences: {
    over: '{{subject}} reaches {{value}} into {{other}}.',
    tight: '{{subject}} reaches into nothing.',
    within: '{{subject}} reaches into nothing.',
    unknown: '{{subject}}: whether it reaches into something is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachOnWall(placeOverlap.id, context, (one, wall) => {
      const missing = one.rect.known ? [] : [...one.rect.missing];
      let deepest = 0;
      let other = '';
      const hold = (rect: Rect, label: string): void => {
        const depth = one.rect.known ? overlapM(one.rect.value, rect) : 0;
        if (depth <= deepest) return;
        deepest = depth;
        other = label;
      };
      for (const neighbour of wall) {
        if (neighbour === one) continue;
        if (neighbour.rect.known) hold(neighbour.rect.value, neighbour.label);
        else missing.push(...neighbour.rect.missing);
      }
      for (const obstacle of context.installation.place?.obstacles ?? [])
        if (!FLAT.has(obstacle.kind)) hold(obstacle, obstacleLabel(obstacle));
      return {
        subject: wallSubject(one),
        value: one.rect.known ? deepest : undefined,
        limit: 0,
        unit: 'm',
        graded: false,
        missing,
        data: { other },
        working: () => ({
          steps: [],
          inputs: [
            { label: `${one.label}: left edge`, path: [...one.path, 'xM'], value: one.mounted.xM, unit: 'm' },
            {
              label: `${one.label}: lower edge`,
              path: [...one.path, 'yM'],
              value: one.mounted.yM,
              unit: 'm',
            },
          ],
          source:
            'Rectangles of the bodies on the wall; how far two reach into each other is the smaller of both directions.',
          notes: [],
        }),
      };
    }),
});
