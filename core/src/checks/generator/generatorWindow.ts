import { all, field } from '../../values/known.ts';
import { formatNumber } from '../../words/quantity.ts';
import { type Check, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import { eachGenerator } from '../support/generators.ts';

/**
 * Voltage and frequency that a set gives between no load and full load, against what the inverters accept at their input. Governor
 * droop: the frequency is nominal at full load and higher by the droop at no load.
 */
export const generatorWindow: Check<'generator.window'> = checkOf({
  id: 'generator.window',
  title: 'Generator inside the input window',
  family: 'generator',
  modes: ['generator-port', 'transfer-switch'],
  sentences: {
    over: '{{subject}} gives {{range}}; the inverters accept {{window}}: they would drop it again and again.',
    tight: '{{subject}} gives {{range}}; the inverters accept {{window}}.',
    within: '{{subject}} gives {{range}}, inside what the inverters accept: {{window}}.',
    unknown: '{{subject}}: whether the inverters accept it is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachGenerator(generatorWindow.id, context, '', ({ subject, type, compiled }) => {
      const { type: inverter } = compiled;
      // A box on the DC side has no input for alternating current that a set could drop out of.
      if (compiled.stack.arrangement === 'dc-side-box') return [];
      if (!inverter.known) return unknownFinding(generatorWindow.id, context, subject, '', inverter.missing);
      const own = ['types', type.id];
      const its = ['types', inverter.value.id];
      const given = all({
        outputV: field(type.outputV, ...own, 'outputV'),
        frequencyHz: field(type.frequencyHz, ...own, 'frequencyHz'),
        regulation: field(type.regulation, ...own, 'regulation'),
        droop: field(type.droop, ...own, 'droop'),
        inputV: field(inverter.value.inputV, ...its, 'inputV'),
        inputHz: field(inverter.value.inputHz, ...its, 'inputHz'),
      });
      if (!given.known) return unknownFinding(generatorWindow.id, context, subject, '', given.missing);
      const { outputV, frequencyHz, regulation, droop, inputV, inputHz } = given.value;
      const volts = [outputV * (1 - regulation), outputV * (1 + regulation)] as const;
      const hertz = [frequencyHz, frequencyHz * (1 + droop)] as const;
      // How much of each window is used, 1 at its edge; the fullest one counts.
      const used = (range: readonly [number, number], window: { min: number; max: number }): number => {
        const middle = (window.min + window.max) / 2;
        return Math.max(middle - range[0], range[1] - middle) / ((window.max - window.min) / 2);
      };
      return judge(generatorWindow.id, context, {
        subject,
        value: Math.max(used(volts, inputV), used(hertz, inputHz)),
        limit: 1,
        unit: '',
        data: {
          range: `${formatNumber(volts[0])} to ${formatNumber(volts[1])} V and ${formatNumber(hertz[0])} to ${formatNumber(hertz[1])} Hz`,
          window: `${inputV.min} to ${inputV.max} V, ${inputHz.min} to ${inputHz.max} Hz`,
        },
        working: () => ({
          ...NO_WORKING,
          source:
            'Regulation either way of the rated voltage; rated frequency at full load, higher by the droop at no load.',
          notes: [
            `Of the voltage window ${(100 * used(volts, inputV)).toFixed(0)} % is used, of the frequency window ${(100 * used(hertz, inputHz)).toFixed(0)} %, counted from the middle.`,
          ],
        }),
      });
    }),
});
