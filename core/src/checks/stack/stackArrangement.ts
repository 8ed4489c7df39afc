import { type Arrangement, fitsVoltage, isUnitPerLine, madeLineV } from '../../catalogue/inverterType.ts';
import { all, field } from '../../values/known.ts';
import type { SupplyKind } from '../../installation/facts.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachKnown } from '../support/plain.ts';
import { stackSubject } from '../support/subjects.ts';

/** The supplies each arrangement can back up. A single-phase set may serve one line of a larger supply; the others are dark in an island. */
const SERVES: Record<Arrangement, readonly SupplyKind[]> = {
  'one-unit': ['single-phase', 'split-phase', 'three-phase'],
  'parallel-single-phase': ['single-phase', 'split-phase', 'three-phase'],
  'split-phase-native': ['split-phase'],
  'split-phase-autotransformer': ['split-phase'],
  'three-phase-native': ['three-phase'],
  'three-phase-from-single': ['three-phase'],
  'split-phase-from-single': ['split-phase'],
  'three-phase-ring': ['three-phase'],
  'ac-coupled-storage': ['single-phase', 'three-phase'],
  'dc-side-box': ['single-phase', 'split-phase', 'three-phase'],
};

/** Arrangements of one unit by itself; several of them are several stacks. */
const STANDS_ALONE: readonly Arrangement[] = ['one-unit', 'ac-coupled-storage', 'dc-side-box'];

const judged = (reasons: readonly string[]) => ({
  value: reasons.length,
  limit: 0,
  graded: false,
  data: { reason: reasons.join('; ') },
  working: () => ({
    ...NO_WORKING,
    source: 'Arrangements the inverter type allows, and the supplies each one makes.',
  }),
});

/** Whether the arrangement is one the type allows, fits the supply, and has a number of units that makes sense. */
export const stackArrangement: Check<'stack.arrangement'> = checkOf({
  id: 'stack.arrangement',
  title: 'Arrangement',
  family: 'stack',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}}: {{reason}}.',
    within: '{{subject}}: the arrangement is one the type and the supply allow.',
    unknown: '{{subject}}: the arrangement cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) => {
    const { site } = context.installation;
    return eachKnown(
      stackArrangement.id,
      context,
      '',
      stackSubject,
      (compiled) =>
        all({
          type: compiled.type,
          arrangement: field(compiled.stack.arrangement, 'stacks', compiled.stack.id, 'arrangement'),
          supply: field(site.supply, 'site', 'supply'),
          lineVoltageV: context.installation.lineVoltageV,
        }),
      ({ stack, autotransformer: auto }, { type, arrangement, supply, lineVoltageV }) => {
        const reasons: string[] = [];
        if (auto.known && auto.value !== 'none' && auto.value.thermalSensor === 'no')
          reasons.push(
            'its autotransformer has no thermal sensor: nothing takes the set off when its neutral overheats it',
          );
        if (!type.arrangements.includes(arrangement))
          reasons.push(`${type.name} does not allow this arrangement`);
        if (!SERVES[arrangement].includes(supply))
          reasons.push(`this arrangement does not make a ${supply} output`);
        if (STANDS_ALONE.includes(arrangement) && stack.units.length !== 1)
          reasons.push(`one unit is meant, but ${stack.units.length} are listed`);
        if (arrangement === 'three-phase-ring' && stack.units.length % 3 !== 0)
          reasons.push(`a ring is closed by threes, but ${stack.units.length} units are listed`);
        const least = arrangement === 'split-phase-from-single' ? 2 : 3;
        if (isUnitPerLine(arrangement) && stack.units.length < least)
          reasons.push(
            `${least === 3 ? 'three lines need at least three' : 'two lines need at least two'} units, but ${stack.units.length} are listed`,
          );
        if (!fitsVoltage(type, arrangement, lineVoltageV))
          reasons.push(
            `the type makes ${madeLineV(type)} V line to neutral and the site has ${lineVoltageV} V`,
          );
        return judged(reasons);
      },
    );
  },
});
