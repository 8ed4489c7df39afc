import { obstacleLabel, type OnWall, overlapM, topOf, rightOf } from '../../installation/place/wall.ts';
import type { Path } from '../../values/problem.ts';
import type { Place } from '../../installation/facts.ts';
import { type Check, checkOf } from '../check.ts';
import { eachOnWall, wallSubject } from '../support/wall.ts';

const RANK = { indoors: 0, sheltered: 1, outdoors: 2 } as const;

/** What is wrong about where a thing hangs: in words, and whether it may burn or be touched live. Sun wears the box, and nobody is hurt by it. */
interface Trouble {
  readonly words: string;
  readonly hurts: boolean;
}

function troubles(one: OnWall, place: Place): Trouble[] {
  const found: Trouble[] = [];
  const add = (words: string, hurts: boolean): void => void found.push({ words, hurts });
  if (!one.rect.known || one.body?.known !== true) return found;
  const rect = one.rect.value;
  const { wetRated } = one.body.value;
  const exposure = place.wall?.exposure;
  if (exposure !== undefined && RANK[exposure] > RANK[wetRated])
    add(`it is made for ${wetRated} and the wall is ${exposure}`, true);
  if (place.wall?.surface === 'combustible') add('the surface behind it is combustible', true);
  for (const obstacle of place.obstacles) {
    const label = obstacleLabel(obstacle);
    const touches = overlapM(rect, obstacle) > 0;
    if (touches && obstacle.kind === 'sunlit') add(`it stands in the sun (${label})`, false);
    if (touches && obstacle.kind === 'combustible') add(`it hangs on a combustible surface (${label})`, true);
    if (touches && obstacle.kind === 'wet') add(`it gets wet (${label})`, true);
    const isAbove =
      rect.yM >= topOf(obstacle) - 1e-9 &&
      Math.min(rightOf(rect), rightOf(obstacle)) > Math.max(rect.xM, obstacle.xM);
    if (obstacle.kind === 'heat-source' && (touches || isAbove))
      add(`it hangs over a heat source (${label})`, true);
  }
  return found;
}

/** Sun, wet, heat and what burns: none of it where a thing hangs. The value counts what is wrong. */
export const placeExposure: Check<'place.exposure'> = checkOf({
  id: 'place.exposure',
  title: 'Exposure',
  family: 'place',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{troubles}}.',
    tight: '{{subject}} is out of sun, wet and heat, as far as the plan says.',
    within: '{{subject}} is out of sun, wet and heat, as far as the plan says.',
    unknown: '{{subject}}: exposure cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachOnWall(placeExposure.id, context, (one) => {
      const { place } = context.installation;
      if (one.body === undefined || place === undefined) return undefined;
      const found = troubles(one, place);
      const missing: Path[] = [
        ...(one.body.known ? [] : one.body.missing),
        ...(place.wall?.exposure === undefined ? [['place', 'wall', 'exposure']] : []),
        ...(place.wall?.surface === undefined ? [['place', 'wall', 'surface']] : []),
      ];
      return {
        subject: wallSubject(one),
        value: found.length,
        limit: 0,
        unit: '',
        graded: false,
        missing,
        data: {
          troubles: found.map(({ words }) => words).join('; '),
          hurting: found.filter(({ hurts }) => hurts).length,
        },
        working: () => ({
          steps: [],
          inputs: [],
          source:
            'What the plan of the wall says of sun, wet, heat and surfaces, against what the type is made for.',
          notes: found.map(({ words }) => words),
        }),
      };
    }),
});
