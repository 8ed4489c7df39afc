import { type Check, judge, checkOf } from '../check.ts';
import { symbol } from '../support/workings.ts';

/** Mass of everything that hangs on the wall against what the wall may carry. */
export const placeLoad: Check<'place.load'> = checkOf({
  id: 'place.load',
  title: 'Load on the wall',
  family: 'place',
  modes: 'once',
  sentences: {
    over: 'The wall is asked to carry {{value}} and may carry {{limit}}: over by {{margin}}.',
    tight: 'The wall carries {{value}} of {{limit}}: {{margin}} left.',
    within: 'The wall carries {{value}} of {{limit}}: {{margin}} left.',
    unknown: 'The load on the wall cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) => {
    const { place, wall } = context.installation;
    const hanging = wall.filter((one) => one.body?.known !== true || one.body.value.mount === 'wall');
    if (hanging.length === 0) return [];
    const limit = place?.wall?.loadLimitKg;
    const masses = hanging.flatMap((one) => (one.massKg.known ? [{ one, kg: one.massKg.value }] : []));
    const value = masses.reduce((sum, { kg }) => sum + kg, 0);
    return [
      judge(placeLoad.id, context, {
        subject: { kind: 'place', id: 'wall', label: 'The wall' },
        value,
        limit,
        unit: 'kg',
        missing: [
          ...hanging.flatMap((one) => (one.massKg.known ? [] : one.massKg.missing)),
          ...(limit === undefined ? [['place', 'wall', 'loadLimitKg']] : []),
        ],
        working: () => ({
          steps: [
            {
              symbol: 'm',
              meaning: 'mass on the wall',
              formula: masses.map((_, index) => `m_${index + 1}`).join(' + '),
              symbols: masses.map(({ one, kg }, index) =>
                symbol(`m_${index + 1}`, one.label, kg, 'kg', one.path),
              ),
              value,
              unit: 'kg',
            },
          ].filter((step) => step.symbols.length > 0),
          inputs: [],
          source: 'Masses of the types; things that stand on the floor are not counted.',
          notes: [],
        }),
      }),
    ];
  },
});
