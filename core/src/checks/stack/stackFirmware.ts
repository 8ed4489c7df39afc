import { all, field } from '../../values/known.ts';
import { type Check, NO_WORKING } from '../check.ts';
import { eachKnown } from '../support/plain.ts';
import { stackSubject } from '../support/subjects.ts';

/** Paralleled units must run the same firmware. */
export const stackFirmware: Check<'stack.firmware'> = {
  id: 'stack.firmware',
  title: 'Same firmware on all units',
  family: 'stack',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: {{versions}} different versions are loaded: {{list}}. Load the same on all before joining the parallel cable.',
    tight: '{{subject}}: {{list}}.',
    within: '{{subject}}: all units run {{list}}.',
    unknown: '{{subject}}: firmware not recorded. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      stackFirmware.id,
      context,
      '',
      stackSubject,
      ({ stack }) =>
        stack.units.length < 2
          ? undefined
          : all(
              Object.fromEntries(
                stack.units.map((unit) => [
                  unit.id,
                  field(unit.firmware, 'stacks', stack.id, 'units', unit.id, 'firmware'),
                ]),
              ),
            ),
      (_compiled, versions) => {
        const distinct = [...new Set(Object.values(versions))];
        return {
          value: distinct.length,
          limit: 1,
          graded: false,
          data: { versions: distinct.length, list: distinct.join(', ') },
          working: () => ({ ...NO_WORKING, source: 'Firmware recorded for each unit.' }),
        };
      },
    ),
};
