import { all, field } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

/** Paralleled units on one bank charge by the same settings. */
export const stackBatteryProfile: Check<'stack.battery-profile'> = checkOf({
  id: 'stack.battery-profile',
  title: 'Same battery settings on all units',
  family: 'stack',
  modes: ['island'],
  sentences: rulingSentences('whether the units have the same battery settings'),
  run: (context) =>
    eachRuling(
      stackBatteryProfile.id,
      context,
      'Battery settings recorded for each unit.',
      stackSubject,
      ({ stack }) =>
        stack.units.length < 2 || typeof stack.bank !== 'object'
          ? undefined
          : all(
              Object.fromEntries(
                stack.units.map((unit) => [
                  unit.id,
                  field(unit.batteryProfile, 'stacks', stack.id, 'units', unit.id, 'batteryProfile'),
                ]),
              ),
            ),
      (_compiled, profiles) => {
        const distinct = [...new Set(Object.values(profiles))];
        return {
          reasons:
            distinct.length > 1
              ? [`${distinct.length} different battery settings are loaded: ${distinct.join(', ')}`]
              : [],
          kept: `all units have the battery settings “${distinct[0] ?? ''}”`,
        };
      },
    ),
});
