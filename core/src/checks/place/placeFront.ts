import { frontWantedM } from '../../installation/place/front.ts';
import { type Check, checkOf } from '../check.ts';
import { eachOnWall, wallSubject } from '../support/wall.ts';

/** Room to work before each thing on the wall, where somebody has measured what is free in front of it. */
export const placeFront: Check<'place.front'> = checkOf({
  id: 'place.front',
  title: 'Room in front',
  family: 'place',
  modes: 'once',
  sentences: {
    over: '{{subject}} wants {{limit}} in front of the wall, and {{value}} are free.',
    tight: '{{subject}} wants {{limit}} in front of the wall, and {{value}} are free.',
    within: '{{subject}} wants {{limit}} in front of the wall, and {{value}} are free.',
    unknown: '{{subject}}: the room in front cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachOnWall(placeFront.id, context, (one) => {
      const freeM = context.installation.place?.wall?.frontFreeM;
      if (freeM === undefined || one.body === undefined) return undefined;
      const wantedM = frontWantedM(one);
      return {
        subject: wallSubject(one),
        value: freeM,
        limit: wantedM,
        unit: 'm',
        bound: 'at-least',
        graded: false,
        missing: one.body.known ? [] : one.body.missing,
        working: () => ({
          steps: [],
          inputs: [
            {
              label: 'Free in front of the wall',
              path: ['place', 'wall', 'frontFreeM'],
              value: freeM,
              unit: 'm',
            },
          ],
          source: 'Depth and free space in front, both of its type.',
          notes: one.body?.known
            ? [
                `${one.body.value.depthM} m + ${one.body.value.clearFrontM} m = ${(wantedM ?? 0).toFixed(2)} m.`,
              ]
            : [],
        }),
      };
    }),
});
