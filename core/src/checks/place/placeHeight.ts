import { topOf } from '../../installation/place/wall.ts';
import { type Check, checkOf } from '../check.ts';
import { eachOnWall, wallSubject } from '../support/wall.ts';

/** Lower edge above the floor, where the type wants a least height. */
export const placeHeight: Check<'place.height'> = checkOf({
  id: 'place.height',
  title: 'Height above the floor',
  family: 'place',
  modes: 'once',
  sentences: {
    over: '{{subject}} hangs {{value}} above the floor; its type wants {{wanted}}.',
    tight: '{{subject}} hangs {{value}} above the floor; its type wants {{wanted}}.',
    within: '{{subject}} hangs {{value}} above the floor; its type wants {{wanted}}.',
    unknown: '{{subject}}: the height cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachOnWall(placeHeight.id, context, (one) => {
      if (one.body === undefined) return undefined;
      const range = one.body.known ? one.body.value.heightAboveFloorM : undefined;
      if (one.body.known && range === undefined) return undefined;
      const low = one.mounted.yM;
      const isHigh = range !== undefined && low > range.max;
      return {
        subject: wallSubject(one),
        value: low,
        limit: isHigh ? range.max : range?.min,
        unit: 'm',
        bound: isHigh ? 'at-most' : 'at-least',
        graded: false,
        missing: one.body.known ? [] : one.body.missing,
        data: { wanted: range === undefined ? '' : `${range.min} m to ${range.max} m` },
        working: () => ({
          steps: [],
          inputs: [{ label: `${one.label}: lower edge`, path: [...one.path, 'yM'], value: low, unit: 'm' }],
          source: 'Range of heights that the type gives for its lower edge.',
          notes: one.rect.known ? [`Its upper edge is at ${topOf(one.rect.value).toFixed(2)} m.`] : [],
        }),
      };
    }),
});
