import { all, field } from '../../values/known.ts';
import { type Check, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';

/** Rapid shutdown on the roof, where the code profile wants it. */
export const pvRapidShutdown: Check<'pv.rapid-shutdown'> = checkOf({
  id: 'pv.rapid-shutdown',
  title: 'Rapid shutdown',
  family: 'pv',
  modes: 'once',
  sentences: {
    over: '{{subject}} has no rapid shutdown, which the code profile of this job wants on a building.',
    tight: '{{subject}}: rapid shutdown fitted.',
    within: '{{subject}}: rapid shutdown fitted.',
    unknown: '{{subject}}: whether rapid shutdown is needed or fitted is not said. Missing: {{missing}}.',
  },
  run: (context) =>
    context.installation.arrays
      .map(({ array }) => array)
      .filter((array) => array.coupling === 'dc')
      .flatMap((array): Found[] => {
        const subject: Subject = { kind: 'array', id: array.id, label: array.name };
        const profile = field(context.installation.site.codeProfile, 'site', 'codeProfile');
        if (profile.known && profile.value === 'metric') return [];
        const given = all({
          profile,
          fitted: field(array.rapidShutdown, 'arrays', array.id, 'rapidShutdown'),
        });
        if (!given.known) return [unknownFinding(pvRapidShutdown.id, context, subject, '', given.missing)];
        return [
          judge(pvRapidShutdown.id, context, {
            subject,
            value: given.value.fitted === 'fitted' ? 0 : 1,
            limit: 0,
            unit: '',
            graded: false,
            working: () => ({
              ...NO_WORKING,
              source: 'Rapid shutdown of DC conductors on buildings, by code profile.',
            }),
          }),
        ];
      }),
});
