import { field, known } from '../../values/known.ts';
import type { Check } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

/** A transfer device that works by itself has to learn that the grid is gone: it watches it, or an inverter tells it. */
export const gridTransferControl: Check<'grid.transfer-control'> = {
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
      ({ transferDevice }) => {
        if (!transferDevice.known) return transferDevice;
        const type = transferDevice.value;
        if (type === 'none' || type.control === 'hand') return undefined;
        const isTold = type.controlSupply === 'from-inverter' || type.commsPins !== undefined;
        return isTold && type.sensesGrid === undefined
          ? known('told' as const)
          : field(
              type.sensesGrid === 'no' && isTold ? ('told' as const) : type.sensesGrid,
              'types',
              type.id,
              'sensesGrid',
            );
      },
      (_, senses) => ({
        reasons:
          senses === 'no'
            ? [
                'its transfer device works by itself, does not watch the grid, and nothing of the inverters tells it',
              ]
            : [],
        kept:
          senses === 'told'
            ? 'the inverters tell the transfer device that the grid is gone'
            : 'the transfer device watches the grid by itself',
      }),
    ),
};
