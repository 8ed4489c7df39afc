import { type Check, checkOf } from '../check.ts';
import { eachOnWall, wallSubject } from '../support/wall.ts';
import { symbol } from '../support/workings.ts';

/** Mass on each fixing of a bracket, shared by its holes, against what one fixing may carry in this wall. */
export const placeFixing: Check<'place.fixing'> = checkOf({
  id: 'place.fixing',
  title: 'Load on each fixing',
  family: 'place',
  modes: 'once',
  sentences: {
    over: '{{subject}} puts {{value}} on each fixing, which may carry {{limit}}: over by {{margin}}.',
    tight: '{{subject}} puts {{value}} on each fixing of {{limit}}: {{margin}} left.',
    within: '{{subject}} puts {{value}} on each fixing of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: the load on its fixings cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachOnWall(placeFixing.id, context, (one) => {
      if (one.body === undefined || (one.body.known && one.body.value.mount === 'floor')) return undefined;
      const holes = one.body.known ? one.body.value.drilling.length : 0;
      if (one.body.known && holes === 0) return undefined;
      const limit = context.installation.place?.wall?.fixingLimitKg;
      const value = one.massKg.known && holes > 0 ? one.massKg.value / holes : undefined;
      return {
        subject: wallSubject(one),
        value,
        limit,
        unit: 'kg',
        missing: [
          ...(one.body.known ? [] : one.body.missing),
          ...(one.massKg.known ? [] : one.massKg.missing),
          ...(limit === undefined ? [['place', 'wall', 'fixingLimitKg']] : []),
        ],
        working: () => ({
          steps:
            value === undefined || !one.massKg.known
              ? []
              : [
                  {
                    symbol: 'm_f',
                    meaning: 'mass on one fixing',
                    formula: 'm / n',
                    symbols: [
                      symbol('m', 'mass', one.massKg.value, 'kg', one.path),
                      symbol('n', 'holes of the drilling template', holes, ''),
                    ],
                    value,
                    unit: 'kg',
                  },
                ],
          inputs: [],
          source:
            'Mass shared equally by the holes of the template. Pull-out and the wall itself are for a competent person on site.',
          notes: [],
        }),
      };
    }),
});
