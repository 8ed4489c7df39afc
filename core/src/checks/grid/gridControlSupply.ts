import type { InverterType } from '../../catalogue/inverterType.ts';
import type { TransferDeviceType } from '../../catalogue/sourceTypes.ts';
import { typeOfUnit } from '../../figures/wiring/acCarried.ts';
import { all, field, type Known, mapKnown } from '../../values/known.ts';
import { formatNumber } from '../../words/quantity.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, type Ruling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

/** A coil holds within a tenth of its voltage (IEC 60947-4-1 asks a contactor to close from 85 to 110 % of it). */
const COIL_LEAST = 0.85;
const COIL_MOST = 1.1;

interface Supplied {
  readonly givesV: number;
  readonly givesA: number;
  readonly takesV: number;
  readonly takesVa: number;
  readonly gives: 'ac' | 'dc';
  readonly takes: 'ac' | 'dc';
}

/** What the output of an inverter gives, and what the controls of a device take of it. */
function suppliedBy(device: TransferDeviceType, inverter: InverterType): Known<Supplied> {
  return all({
    takesV: field(device.controlV, 'types', device.id, 'controlV'),
    takesVa: field(device.controlVa, 'types', device.id, 'controlVa'),
    takes: field(device.controlCurrent, 'types', device.id, 'controlCurrent'),
    gives: field(inverter.controlOutCurrent, 'types', inverter.id, 'controlOutCurrent'),
    givesV: field(inverter.controlOutV, 'types', inverter.id, 'controlOutV'),
    givesA: field(inverter.controlOutA, 'types', inverter.id, 'controlOutA'),
  });
}

/** I = S / V at the voltage that the output gives. */
function judged({ givesV, givesA, takesV, takesVa, gives, takes }: Supplied): Ruling {
  const takesA = takesVa / givesV;
  const isVoltage = givesV >= COIL_LEAST * takesV && givesV <= COIL_MOST * takesV;
  const reasons = [
    ...(gives === takes
      ? []
      : [
          `the controls of its transfer device take ${takes.toUpperCase()}, and the output of the inverter for them gives ${gives.toUpperCase()}`,
        ]),
    ...(isVoltage
      ? []
      : [
          `the controls of its transfer device are for ${formatNumber(takesV)} V, and the output of the inverter for them gives ${formatNumber(givesV)} V`,
        ]),
    ...(takesA <= givesA
      ? []
      : [
          `the controls of its transfer device take ${formatNumber(takesA)} A, and the output of the inverter for them gives ${formatNumber(givesA)} A`,
        ]),
  ];
  return {
    reasons,
    kept: `the output of the inverter feeds the controls of the transfer device: ${formatNumber(takesA)} of ${formatNumber(givesA)} A at ${formatNumber(givesV)} V`,
    notes: [`${formatNumber(takesVa)} VA / ${formatNumber(givesV)} V = ${formatNumber(takesA)} A.`],
  };
}

/** Controls that an inverter feeds get the voltage that they are made for, and no more current is asked than its output gives. */
export const gridControlSupply: Check<'grid.control-supply'> = checkOf({
  id: 'grid.control-supply',
  title: 'Supply of the controls of a transfer device',
  family: 'grid',
  modes: 'once',
  sentences: rulingSentences('the supply of the controls of its transfer device'),
  run: (context) =>
    eachRuling(
      gridControlSupply.id,
      context,
      'Control output of the inverter against what the controls of the transfer device take; a coil holds from 85 to 110 % of its voltage.',
      stackSubject,
      (compiled) => {
        const { transferDevice, stack } = compiled;
        if (!transferDevice.known || transferDevice.value === 'none') return undefined;
        const device = transferDevice.value;
        if (device.control === 'hand' || device.controlSupply !== 'from-inverter') return undefined;
        // A type that says nothing of what its controls take is asked for it where their cable is sized.
        if (device.controlV === undefined && device.controlVa === undefined) return undefined;
        const host = stack.units.find(({ id }) => id === stack.hostUnitId) ?? stack.units[0];
        const type = host === undefined ? compiled.type : typeOfUnit(context.installation, compiled, host);
        return type.known ? mapKnown(suppliedBy(device, type.value), judged) : type;
      },
      (_, ruling) => ruling,
    ),
});
