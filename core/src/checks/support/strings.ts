import { allStrings, type StringsAt } from '../../figures/pv/strings.ts';
import { type CheckContext, judge, type Measurement, unknownFinding } from '../check.ts';
import type { Found, Subject } from '../finding.ts';

export const stringSubject = (one: StringsAt): Subject => ({
  kind: 'array',
  id: `${one.array.id}/${one.place.id}`,
  about: [
    { kind: 'array', id: one.array.id },
    { kind: 'unit', id: one.place.unitId },
  ],
  label: one.label,
});

/** Runs a measurement for each place of each DC-coupled array; an array that is plugged nowhere yet is one `unknown`. */
export function eachString<Key extends string = never>(
  check: string,
  context: CheckContext,
  unit: string,
  measure: (one: StringsAt) => Omit<Measurement<Key>, 'subject' | 'unit'> | undefined,
): Found<Key>[] {
  const { installation } = context;
  const bare = installation.arrays
    .filter(({ array }) => array.coupling === 'dc' && (array.places ?? []).length === 0)
    .map(({ array }) =>
      unknownFinding(check, context, { kind: 'array', id: array.id, label: array.name }, unit, [
        ['arrays', array.id, 'places'],
      ]),
    );
  const placed = allStrings(installation).flatMap((one) => {
    const measured = measure(one);
    return measured === undefined
      ? []
      : [judge(check, context, { ...measured, subject: stringSubject(one), unit })];
  });
  return [...bare, ...placed];
}
