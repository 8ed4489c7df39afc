import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import type { Design } from '../../design/schema.ts';
import { compile } from '../../installation/compile.ts';
import { commsSchedule } from '../../schedules/comms.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { baseDesign, stack1 } from '../../testkit/designs.ts';
import { stackEnable } from './stackEnable.ts';

/** The unit with an enable input of a kind, and a switch that is there, is not, or that nobody has spoken of. */
const withInput =
  (enableInput: InverterType['enableInput'], fitted?: 'yes' | 'none') =>
  (design: Design): void => {
    design.types.push(variantOf('inverter', 'hybrid-5k-1ph', { id: 'own', enableInput }));
    stack1(design).inverterTypeId = 'own';
    if (fitted !== undefined) design.devices.push({ id: 'en', role: 'enable-switch', stackId: 's', fitted });
  };

checkTable(stackEnable, [
  { name: 'neither input nor switch', edit: withInput(undefined), state: 'nothing' },
  { name: 'no input, and none listed', edit: withInput('none'), state: 'nothing' },
  {
    name: 'a switch that closes',
    edit: withInput('closed-runs', 'yes'),
    state: 'within',
    says: 'while it is closed',
  },
  { name: 'a bridge', edit: withInput('closed-runs', 'none'), state: 'within', says: 'bridged' },
  { name: 'a switch that stops it by closing', edit: withInput('open-runs', 'yes'), state: 'within' },
  {
    name: 'a switch, and no input for it',
    edit: withInput('none', 'yes'),
    state: 'over',
    says: 'the switch that is listed stops nothing',
  },
  { name: 'nobody has said', edit: withInput('closed-runs'), state: 'unknown', missing: 'devices' },
  {
    name: 'a switch, and the type says nothing of an input',
    edit: withInput(undefined, 'yes'),
    state: 'unknown',
    missing: 'types/own/enableInput',
  },
]);

it('the switch has two cores in the comms schedule, and none where there is none', () => {
  const kinds = (fitted: 'yes' | 'none') => {
    const design = baseDesign();
    withInput('closed-runs', fitted)(design);
    return commsSchedule(compile(design, SAMPLE_TYPES)).rows.map(({ id }) => id);
  };
  expect(kinds('yes')).toContain('enable s');
  expect(kinds('none')).not.toContain('enable s');
});
