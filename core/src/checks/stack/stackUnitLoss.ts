import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { capabilityInMode, lineSubject, stackSubject } from '../support/subjects.ts';

const QUESTION = { kind: 'design', id: 'unit-loss', label: 'Loss of an inverter' } as const;

/** What must be said of losing a unit before any sum is done: a set that stops, a line whose only unit is gone. */
function lossesIn(context: CheckContext): Found<'what'>[] {
  const { mode, installation } = context;
  const set = installation.stacks.find(({ stack }) => stack.id === mode.lostUnit?.stackId);
  if (set === undefined || !set.type.known || !set.supply.known) return [];
  const working = (source: string) => () => ({ ...NO_WORKING, source });
  const shared = { value: 1, limit: 0, unit: '', graded: false } as const;
  if (set.type.value.lostUnit === 'set-stops')
    // The same whichever unit it is: said once, for the first.
    return set.stack.units[0]?.id !== mode.lostUnit?.unitId
      ? []
      : [
          judge(stackUnitLoss.id, context, {
            ...shared,
            subject: stackSubject(set),
            data: { what: 'stops as a whole when one of its units is lost, by its type' },
            working: working('What the inverter type says of a lost unit.'),
          }),
        ];
  const capability = capabilityInMode(context, set);
  const whole = installation.stacks.indexOf(set);
  if (!capability.known || whole < 0) return [];
  return set.supply.value.lines.flatMap((line, index) => {
    const isLost =
      set.stack.units.some(({ id, line: own }) => id === mode.lostUnit?.unitId && own === line) &&
      capability.value.unitsOnLine[index] === 0;
    return isLost
      ? [
          judge(stackUnitLoss.id, context, {
            ...shared,
            subject: lineSubject(set, line),
            data: { what: 'is dark: its only unit is the one that is lost' },
            working: working('Units on the line, less the lost one.'),
          }),
        ]
      : [];
  });
}

/** Whether the loss of one inverter must be survived is asked once; where it must, what it makes impossible is told first. */
export const stackUnitLoss: Check<'stack.unit-loss'> = checkOf({
  id: 'stack.unit-loss',
  title: 'Loss of an inverter',
  family: 'stack',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}} {{what}}.',
    tight: '{{subject}} {{what}}.',
    within: '{{subject}} is decided.',
    unknown: '{{subject}}: whether it must be survived is not decided yet. Missing: {{missing}}.',
  },
  run: (context) => {
    const { installation, mode } = context;
    if (mode.kind === 'unit-lost') return lossesIn(context);
    const asks =
      installation.site.surviveUnitLoss === undefined &&
      installation.stacks.some(({ stack }) => stack.units.length > 1);
    return asks
      ? [unknownFinding(stackUnitLoss.id, context, QUESTION, '', [['site', 'surviveUnitLoss']])]
      : [];
  },
});
