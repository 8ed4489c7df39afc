import { magnitude, ZERO } from '../../network/complex.ts';
import { type Check, type Measurement, NO_WORKING, checkOf } from '../check.ts';
import { eachLine } from '../support/eachLine.ts';
import { portCurrent } from '../support/portCurrent.ts';
import { lineSubject } from '../support/subjects.ts';

/** Current of the backed-up side with charging through the transfer device, against its rating; and its lines. */
export const gridTransferDevice: Check<'grid.transfer-device'> = checkOf({
  id: 'grid.transfer-device',
  title: 'Transfer device',
  family: 'grid',
  modes: ['on-grid', 'transfer-switch'],
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}}: {{value}} through the transfer device of {{limit}}: {{margin}} left.',
    within: '{{subject}}: {{value}} through the transfer device of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: the current through the transfer device is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachLine(gridTransferDevice.id, context, 'A', (one): Measurement<'reason'> | undefined => {
      const device = one.compiled.transferDevice;
      const subject = lineSubject(one.compiled, one.line);
      if (!device.known)
        return {
          subject,
          value: undefined,
          limit: undefined,
          unit: 'A',
          missing: device.missing,
          working: () => NO_WORKING,
        };
      if (device.value === 'none') return undefined;
      const { ratedA, lines, name } = device.value;
      const through = portCurrent(context, one, {
        limitA: undefined,
        key: 'passThroughA',
        meaning: '',
        charging: true,
      });
      const isLoaded = magnitude(one.board.continuous.knownPart[one.index] ?? ZERO) > 0;
      const reason =
        one.lines.length > lines && isLoaded && one.index >= lines
          ? `${name} switches ${lines} lines and ${one.line} is not one of them`
          : `${(through.value ?? 0).toFixed(1)} A through the transfer device, which is rated ${ratedA} A`;
      const isBroken = one.index >= lines && isLoaded;
      return {
        ...through,
        limit: isBroken ? 0 : ratedA,
        missing: (through.missing ?? []).filter((path) => path[0] !== 'types'),
        data: { reason },
        working: () => {
          const working = through.working();
          return {
            ...working,
            source: 'Everything behind the device and the charging pass through it.',
            notes: [`Rating of ${name}: ${ratedA} A on ${lines} lines.`],
          };
        },
      };
    }),
});
