import { type Check, checkOf } from '../check.ts';
import { eachOnWall, wallSubject } from '../support/wall.ts';

/** How far a thing leans, where somebody has said that it does. */
export const placeTilt: Check<'place.tilt'> = checkOf({
  id: 'place.tilt',
  title: 'Tilt',
  family: 'place',
  modes: 'once',
  sentences: {
    over: '{{subject}} leans {{value}} from the vertical; its type allows {{limit}}.',
    tight: '{{subject}} leans {{value}} from the vertical; its type allows {{limit}}.',
    within: '{{subject}} leans {{value}} from the vertical; its type allows {{limit}}.',
    unknown: '{{subject}}: whether it may lean cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachOnWall(placeTilt.id, context, (one) => {
      const { tiltDeg } = one.mounted;
      if (tiltDeg === undefined || one.body === undefined) return undefined;
      const body = one.body.known ? one.body.value : undefined;
      const isStated = tiltDeg === 0 || body?.largestTiltDeg !== undefined;
      return {
        subject: wallSubject(one),
        value: tiltDeg,
        limit: tiltDeg === 0 ? 0 : body?.largestTiltDeg,
        unit: '°',
        graded: false,
        missing: one.body.known
          ? isStated
            ? []
            : [['types', one.typeId ?? '', 'body', 'largestTiltDeg']]
          : one.body.missing,
        working: () => ({
          steps: [],
          inputs: [
            { label: `${one.label}: tilt`, path: [...one.path, 'tiltDeg'], value: tiltDeg, unit: '°' },
          ],
          source: 'Largest tilt that the type states, from the vertical.',
          notes: [],
        }),
      };
    }),
});
