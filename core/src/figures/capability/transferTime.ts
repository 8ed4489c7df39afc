import type { CompiledStack } from '../../installation/installation.ts';
import { all, field, type Known, known, mapKnown } from '../../values/known.ts';

/** How long a break lasts when the grid goes, and what sets it. */
export interface TransferTime {
  readonly ms: number;
  readonly setBy: string;
}

/** A transfer device has a time of its own beside that of the inverters: the slower of the two governs. */
export function transferTime({ type, transferDevice }: CompiledStack): Known<TransferTime> {
  const own = type.known ? field(type.value.transferMs, 'types', type.value.id, 'transferMs') : type;
  const device: Known<number | 'none'> = !transferDevice.known
    ? transferDevice
    : // A switch that is thrown by hand takes no part when the grid goes.
      transferDevice.value === 'none' || transferDevice.value.control === 'hand'
      ? known('none')
      : field(transferDevice.value.transferMs, 'types', transferDevice.value.id, 'transferMs');
  return mapKnown(all({ own, device }), (given) => {
    const ofType = { ms: given.own, setBy: type.known ? type.value.name : 'the inverter' };
    if (given.device === 'none' || given.device <= given.own) return ofType;
    const name =
      transferDevice.known && transferDevice.value !== 'none'
        ? transferDevice.value.name
        : 'the transfer device';
    return { ms: given.device, setBy: name };
  });
}
