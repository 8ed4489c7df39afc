import type { SizeTest } from '../../sizing/question.ts';
import { type Check, checkOf } from '../check.ts';
import { eachStatedCable } from '../support/cables.ts';

const TESTS: ReadonlySet<SizeTest> = new Set(['load', 'terminal-column', 'parallel']);

/**
 * Battery leads against what flows when each inverter gives its rated power at the lowest voltage at which it runs, or charges at its
 * setting: what it can do, whatever hangs on it today. Inside of a bank that is solved, each lead against its own current then, and no
 * more than the modules give for good. What the load of today asks of them is `bank.conductors`.
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
      looksAt: ({ use, ends, branch }) =>
        branch !== undefined || (use === 'battery' && ends.some(({ partId }) => inverters.has(partId))),
      whole: 'Battery leads',
      asksForLoad: true,
    });
  },
});
