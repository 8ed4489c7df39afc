import type { Stack } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, type baseDesign, forget, stack1 } from '../../testkit/designs.ts';
import { stackSettings } from './stackSettings.ts';

type Edit = (design: ReturnType<typeof baseDesign>) => void;

const set =
  (settings: NonNullable<Stack['settings']>, more: Partial<Stack> = {}): Edit =>
  (d) =>
    void Object.assign(stack1(d), { settings }, more);
const window = (
  id: string,
  from: string,
  to: string,
  does: 'charge' | 'discharge' | 'hold' = 'discharge',
) => ({
  id,
  from,
  to,
  does,
});
const byTime = (...windows: ReturnType<typeof window>[]): Edit => set({ workMode: 'by-time', windows });

// The sample of 5 kVA takes 110 A out of its battery, and 100 A into it.
checkTable(stackSettings, [
  { name: 'nothing is set', edit: (d) => forget(stack1(d), 'chargeCurrentA'), state: 'nothing' },
  { name: 'as much as the type takes', edit: set({}, { dischargeCurrentA: 110 }), state: 'within' },
  {
    name: 'more than the type takes',
    edit: set({}, { dischargeCurrentA: 111, chargeCurrentA: 101 }),
    state: 'over',
    says: 'discharge is set to 111 A, and the type takes 110 A; charging is set to 101 A, and the type takes 100 A',
  },
  {
    name: 'by time, and no window',
    edit: set({ workMode: 'by-time' }),
    state: 'unknown',
    missing: 'stacks/s/settings/windows',
  },
  {
    name: 'a window ends where the next begins',
    edit: byTime(window('a', '22:00', '06:00'), window('b', '06:00', '22:00')),
    state: 'within',
  },
  {
    name: 'a window past midnight that reaches into the next',
    edit: byTime(window('a', '22:00', '06:01'), window('b', '06:00', '22:00')),
    state: 'over',
    says: 'the windows 22:00 to 06:01 and 06:00 to 22:00 overlap',
  },
  {
    name: 'the same two in the other order',
    edit: byTime(window('b', '06:00', '22:00'), window('a', '22:00', '06:01')),
    state: 'over',
    says: 'overlap',
  },
  {
    name: 'a window of the whole day beside another',
    edit: byTime(window('a', '07:00', '07:00'), window('b', '12:00', '13:00')),
    state: 'over',
    says: 'overlap',
  },
  {
    name: 'a window charges, and charging from the grid is off',
    edit: set(
      { workMode: 'by-time', windows: [window('a', '01:00', '04:00', 'charge')] },
      { gridChargeW: 0 },
    ),
    state: 'over',
    says: 'charging from the grid is off',
  },
  {
    name: 'windows that the work mode does not go by',
    edit: set({ workMode: 'backup-first', windows: [window('a', '01:00', '04:00', 'hold')] }),
    state: 'over',
    says: 'does not go by them',
  },
  {
    name: 'by time on a site without a grid',
    edit: (d) => {
      d.site.grid = 'none';
      byTime(window('a', '01:00', '04:00'))(d);
    },
    state: 'over',
    says: 'has no grid',
  },
  {
    name: 'called at 30 % and let go at 80 %',
    edit: set({ generatorFromSoc: 0.3, generatorToSoc: 0.8 }),
    state: 'within',
  },
  {
    name: 'let go where it is called',
    edit: set({ generatorFromSoc: 0.3, generatorToSoc: 0.3 }),
    state: 'over',
    says: 'called at 30 % and let go at 30 %',
  },
  {
    name: 'called where the set has stopped',
    edit: (d) => {
      bank1(d).cutoffSoc = 0.15;
      set({ generatorFromSoc: 0.15 })(d);
    },
    state: 'over',
    says: 'called at 15 %, and the set stops at 15 % before that',
  },
]);
