import { stringSubject } from '../support/strings.ts';
import { allStrings, type StringsAt } from '../../figures/pv/strings.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';

const sameInput = (a: StringsAt, b: StringsAt): boolean =>
  a.place.stackId === b.place.stackId && a.place.unitId === b.place.unitId && a.place.input === b.place.input;

/** What strings on one input must have in common, in the words of the difference. */
const ALIKE: readonly (readonly [string, (one: StringsAt) => unknown])[] = [
  ['module type', ({ array }) => array.moduleTypeId],
  ['number of modules', ({ array }) => array.modulesPerString],
  ['direction', ({ array }) => array.directionDeg],
  ['tilt', ({ array }) => array.tiltDeg],
];

function faultsOf(one: StringsAt, strings: readonly StringsAt[]): string[] {
  const reasons: string[] = [];
  const elsewhere = strings.filter(({ array, place }) => array === one.array && place !== one.place);
  if (elsewhere.some((other) => other.place.unitId !== one.place.unitId))
    reasons.push(`${one.array.name} is on two inverters: they would fight over its operating point`);
  else if (elsewhere.some((other) => other.place.input !== one.place.input))
    reasons.push(`${one.array.name} is on two inputs: each input wants an array of its own`);
  for (const other of strings) {
    if (other.array === one.array || !sameInput(one, other)) continue;
    const unlike = ALIKE.filter(([, of]) => of(one) !== of(other)).map(([word]) => word);
    if (unlike.length > 0)
      reasons.push(`it shares the input with ${other.array.name}, which differs in ${unlike.join(', ')}`);
  }
  if (one.inputs.known && one.place.input > one.inputs.value.count)
    reasons.push(`the inverter has ${one.inputs.value.count} inputs`);
  return reasons;
}

/** Each input has one kind of string, and each array one input. */
export const pvInputs: Check<'pv.inputs'> = checkOf({
  id: 'pv.inputs',
  title: 'Arrays and inputs',
  family: 'pv',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}}: {{reason}}.',
    within: '{{subject}} has the input to itself or shares it with its like.',
    unknown: '{{subject}}: what shares its input cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) => {
    const strings = allStrings(context.installation);
    return strings.map((one): Found<'reason'> => {
      const reasons = faultsOf(one, strings);
      const path = ['arrays', one.array.id];
      const shared = strings.some((other) => other.array !== one.array && sameInput(one, other));
      const missing = shared
        ? (['moduleTypeId', 'modulesPerString', 'directionDeg', 'tiltDeg'] as const)
            .filter((key) => one.array[key] === undefined)
            .map((key) => [...path, key])
        : [];
      return judge(pvInputs.id, context, {
        subject: stringSubject(one),
        value: reasons.length,
        limit: 0,
        unit: '',
        graded: false,
        missing,
        data: { reason: reasons.join('; ') },
        working: () => ({
          ...NO_WORKING,
          source: 'Strings on one input follow one operating point, so they must be alike.',
          notes: reasons,
        }),
      });
    });
  },
});
