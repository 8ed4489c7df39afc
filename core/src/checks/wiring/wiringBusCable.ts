import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { eachLink, linkSubject } from '../support/links.ts';

/** The cable of a bus: the supplied one where its type allows no other, and no longer than both ends allow. */
export const wiringBusCable: Check<'wiring.bus-cable'> = checkOf({
  id: 'wiring.bus-cable',
  title: 'Cables of buses',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}}: {{value}} of {{limit}} at most.',
    within: '{{subject}}: its cable is of the kind and the length that its ends allow.',
    unknown: '{{subject}}: its cable is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    eachLink(wiringBusCable.id, context, (figure): Found<'reason'>[] => {
      const { wired, longestM, suppliedOnly } = figure;
      const subject = linkSubject(context, figure);
      const wrong =
        figure.link.kind === 'network' && wired?.cable === 'pair'
          ? {
              reason: 'a network wants all pairs of a straight network cable, not one pair',
              source: 'Balanced cabling of buildings.',
            }
          : suppliedOnly && wired?.cable !== undefined && wired.cable !== 'supplied'
            ? {
                reason: 'its type allows only the cable that comes with it',
                source: 'Rule of the parallel bus of the inverter type.',
              }
            : undefined;
      if (wrong !== undefined)
        return [
          judge(wiringBusCable.id, context, {
            subject,
            value: 1,
            limit: 0,
            unit: '',
            graded: false,
            data: { reason: wrong.reason },
            working: () => ({ ...NO_WORKING, source: wrong.source }),
          }),
        ];
      if (wired?.lengthM === undefined || longestM === undefined) return [];
      return [
        judge(wiringBusCable.id, context, {
          subject,
          value: wired.lengthM,
          limit: longestM,
          unit: 'm',
          data: { reason: `${wired.lengthM} m long where ${longestM} m is the most` },
          working: () => ({
            ...NO_WORKING,
            inputs: [
              {
                label: 'Length',
                path: ['wiring', 'links', wired.id, 'lengthM'],
                value: wired.lengthM,
                unit: 'm',
              },
            ],
            source: 'Longest cable that the types at both ends state.',
          }),
        }),
      ];
    }),
});
