import { type Belongs, belongsTo } from '../belongs.ts';
import type { Device, DeviceRole } from '../facts.ts';
import type { Part, Port, TerminalName, Use } from '../network.ts';
import { type Known, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import { ALWAYS, type Laying, neutralPole, takesOf } from './laying.ts';
import type { ClosedIn } from '../network.ts';
import type { FindType } from './types.ts';
import { figuresOf } from '../deviceFigures.ts';

/** What is known of the device at a place: whether it is there, and its rating. */
export function statedDevice(
  devices: readonly Device[],
  role: DeviceRole,
  of: Belongs,
  find: FindType,
): {
  readonly device: Device | undefined;
  readonly from: Path;
  readonly fitted: Known<'yes' | 'none'>;
  readonly ratedA: Known<number>;
  readonly typeName: string | undefined;
} {
  const device = devices.find((one) => belongsTo(one, role, of));
  // A device that nobody has listed is asked for in the list itself.
  const from: Path = device === undefined ? ['devices'] : ['devices', device.id];
  const type = find('protective-device', device?.typeId, [...from, 'typeId']);
  const ratedA: Known<number> =
    device?.ratedA !== undefined
      ? { known: true, value: device.ratedA }
      : type.known
        ? { known: true, value: type.value.ratedA }
        : device === undefined
          ? unknownAt(from)
          : unknownAt(['devices', device.id, 'ratedA']);
  const stated = device?.fitted ?? (device?.typeId !== undefined || ratedA.known ? 'yes' : undefined);
  return {
    device,
    from,
    fitted:
      stated !== undefined
        ? { known: true, value: stated }
        : device === undefined
          ? unknownAt(from)
          : unknownAt(['devices', device.id, 'fitted']),
    ratedA,
    typeName: type.known ? type.value.name : undefined,
  };
}

/** A device in a line behind a port: what nobody stated of it stands there as "not known". Answers the port behind it. */
export function deviceBehind(
  laying: Laying,
  upstream: Port,
  spec: {
    readonly id: string;
    readonly label: string;
    readonly role: DeviceRole;
    readonly of: Belongs;
    readonly devices: readonly Device[];
    readonly find: FindType;
    /** In which modes its poles are closed; always without it. */
    readonly closed?: ClosedIn;
    readonly cable?: {
      readonly from: Path;
      readonly lengthM?: Known<number>;
      readonly areaMm2?: Known<number>;
      readonly routeId?: string;
    };
    readonly more?: Partial<Part>;
    /** What the line carries; of two DC poles that of a battery, if nothing is said. */
    readonly use?: Use;
  },
): Port {
  const { device, from, fitted, ratedA, typeName } = statedDevice(
    spec.devices,
    spec.role,
    spec.of,
    spec.find,
  );
  const names: TerminalName[] = upstream.terminals.map(({ name }) => name);
  const isDc = names.includes('DC+');
  const type = spec.find('protective-device', device?.typeId, [...from, 'typeId']);
  const part = laying.part({
    id: spec.id,
    kind: 'device',
    label: spec.label,
    from,
    role: spec.role,
    fitted,
    ratedA,
    ...(typeName === undefined ? {} : { typeName }),
    ...figuresOf(type),
    ...(device?.mountedId === undefined ? {} : { mountedId: device.mountedId }),
    ...(device?.fromBatteryM === undefined ? {} : { fromBatteryM: device.fromBatteryM }),
    ...spec.more,
  });
  const takes = takesOf(type.known ? type.value.terminals : undefined, 'line', from);
  const inPort = laying.port(part, 'in', names, { takes });
  const outPort = laying.port(part, 'out', names, { takes });
  const lines = spec.closed ?? ALWAYS;
  const neutral =
    lines === ALWAYS
      ? ALWAYS
      : neutralPole(
          device?.neutral === undefined
            ? unknownAt(device === undefined ? from : [...from, 'neutral'])
            : { known: true, value: device.neutral },
          lines,
        );
  laying.poles(inPort, outPort, { lines, neutral });
  laying.run(upstream, inPort, {
    use: spec.use ?? (isDc ? 'battery' : 'ac'),
    from: spec.cable?.from ?? from,
    ...spec.cable,
  });
  return outPort;
}
