import type { InverterType } from '../../catalogue/inverterType.ts';
import type { TransferDeviceType } from '../../catalogue/sourceTypes.ts';
import { BOX_PORT } from '../../installation/network.ts';
import { field, type Known, known } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

type Learns = 'watches' | 'told' | 'not at all';

/** Whether an inverter tells a device by its bus: both need a port for that. */
function toldByBus({ commsPins }: TransferDeviceType, inverter: Known<InverterType>): Known<boolean> {
  if (commsPins === undefined) return known(false);
  if (!inverter.known) return inverter;
  const ports = field(inverter.value.commsPins, 'types', inverter.value.id, 'commsPins');
  return ports.known ? known(ports.value.some(({ port }) => port === BOX_PORT)) : ports;
}

/** How a device that works by itself learns that the grid is gone. */
function learns(device: TransferDeviceType, inverter: Known<InverterType>): Known<Learns> {
  if (device.sensesGrid === 'yes') return known('watches');
  if (device.controlSupply === 'from-inverter') return known('told');
  const byBus = toldByBus(device, inverter);
  if (!byBus.known) return byBus;
  if (byBus.value) return known('told');
  const senses = field(device.sensesGrid, 'types', device.id, 'sensesGrid');
  return senses.known ? known('not at all') : senses;
}

const KEPT: Readonly<Record<Learns, string>> = {
  watches: 'the transfer device watches the grid by itself',
  told: 'the inverters tell the transfer device that the grid is gone',
  'not at all': '',
};

/** A transfer device that works by itself has to learn that the grid is gone: it watches it, or an inverter tells it. */
export const gridTransferControl: Check<'grid.transfer-control'> = checkOf({
  id: 'grid.transfer-control',
  title: 'Transfer device learns that the grid is gone',
  family: 'grid',
  modes: 'once',
  sentences: rulingSentences('how its transfer device learns that the grid is gone'),
  run: (context) =>
    eachRuling(
      gridTransferControl.id,
      context,
      'Control, supply of the controls, bus and grid sensing of the type of the transfer device.',
      stackSubject,
      ({ transferDevice, type }) => {
        if (context.installation.site.grid === 'none') return undefined;
        if (!transferDevice.known) return transferDevice;
        const device = transferDevice.value;
        return device === 'none' || device.control === 'hand' ? undefined : learns(device, type);
      },
      (_, how) => ({
        reasons:
          how === 'not at all'
            ? [
                'its transfer device works by itself, does not watch the grid, and nothing of the inverters tells it',
              ]
            : [],
        kept: KEPT[how],
      }),
    ),
});
