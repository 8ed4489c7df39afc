import type { SizeTest } from '../../sizing/question.ts';
import { type Check, checkOf } from '../check.ts';
import { eachStatedCable } from '../support/cables.ts';

const TESTS: ReadonlySet<SizeTest> = new Set(['load', 'terminal-column', 'parallel']);

/**
 * Battery leads of the inverters against what flows when each gives its rated power at the lowest voltage at which it runs, or charges
 * at its setting: what it can do, whatever hangs on it today. Leads inside of the bank are held against what the modules are asked for
 * (`bank.conductors`): those never give more than their type allows.
 */
export const wiringBatteryLead: Check<'wiring.battery-lead'> = checkOf({
  id: 'wiring.battery-lead',
  title: 'Battery leads at full power',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}} carries {{value}} at full power and the lowest voltage; {{size}} as it is laid allows {{limit}}{{when}}.',
    tight: '{{subject}} carries {{value}} of {{limit}} at full power and the lowest voltage{{when}}.',
    within: '{{subject}}: what flows at full power and the lowest voltage is within what they carry.',
    unknown: '{{subject}}: what flows at full power is not known. Missing: {{missing}}.',
  },
  run: (context) => {
    const { network } = context.installation;
    const inverters = new Set(
      network.known ? network.value.parts.flatMap(({ id, kind }) => (kind === 'inverter' ? [id] : [])) : [],
    );
    return eachStatedCable(context, {
      id: wiringBatteryLead.id,
      tests: TESTS,
      looksAt: ({ use, ends }) => use === 'battery' && ends.some(({ partId }) => inverters.has(partId)),
      whole: 'Battery leads of the inverters',
      asksForLoad: true,
    });
  },
});
