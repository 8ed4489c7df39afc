import type { ProtectiveDeviceType } from '../../catalogue/partTypes.ts';
import type { Cable, Circuit } from '../../installation/facts.ts';
import type { Port, TerminalName } from '../../installation/network.ts';
import { figuresOf } from '../../installation/deviceFigures.ts';
import { takesOf } from '../../installation/build/laying.ts';
import { field, known } from '../../values/known.ts';
import { type CableLine, isFuseKind } from './cableLine.ts';

/** The conductors of a circuit: two lines are line to line and need no neutral; one and three have it. */
const circuitNames = ({ lines }: Circuit): TerminalName[] => [
  ...(lines ?? []),
  ...(lines?.length === 2 ? [] : (['N'] as const)),
  'PE',
];

/** The id of the cable of a circuit. */
export const circuitLineId = ({ id }: Circuit): string => `circuit ${id}`;

/** What the cable of a circuit follows from beside the circuit. */
interface CircuitSurroundings {
  readonly type: ProtectiveDeviceType | undefined;
  readonly cable: Cable | undefined;
  readonly port: Port;
  readonly boardLabel: string;
}

function layLine(circuit: Circuit, { type, cable, port, boardLabel }: CircuitSurroundings): CableLine {
  const from = ['circuits', circuit.id];
  const { device } = circuit;
  const lengthPath = [...from, 'cable', 'lengthM'];
  const areaPath = [...from, 'cable', 'areaMm2'];
  return {
    id: circuitLineId(circuit),
    label: circuit.name,
    ends: [
      { partId: port.partId, label: boardLabel, port },
      { partId: `circuit ${circuit.id}`, label: circuit.name, port: undefined },
    ],
    devices:
      device === undefined
        ? []
        : [
            {
              partId: undefined,
              label: `device of ${circuit.name}`,
              ratedA: field(device.ratedA ?? type?.ratedA, ...from, 'device', 'ratedA'),
              isFuse: isFuseKind(type?.device) || (device.curve ?? type?.curve) === 'gG',
              curve: device.curve ?? type?.curve,
              role: 'circuit',
              ...(type === undefined
                ? { figures: undefined, typeId: undefined }
                : { figures: figuresOf(known(type)).device, typeId: type.id }),
              takes: takesOf(
                type?.terminals,
                'line',
                type === undefined ? [...from, 'device', 'typeId'] : ['types', type.id],
              ),
              ports: [],
              path: [...from, 'device'],
            },
          ],
    endDevices: [],
    names: circuitNames(circuit),
    use: 'ac',
    lengthM: field(circuit.cable?.lengthM, ...lengthPath),
    areaMm2: field(circuit.cable?.areaMm2, ...areaPath),
    lengthPath,
    areaPath,
    cable,
    from,
    circuit,
    branch: undefined,
  };
}

interface LaidLine {
  readonly around: CircuitSurroundings;
  readonly line: CableLine;
}

/** The last cable of each circuit: most edits touch one circuit, and the others keep theirs. */
const laidLines = new WeakMap<Circuit, LaidLine>();

/** The cable of a circuit, from its board to what hangs on it; the same object for as long as nothing around it changes. */
export function circuitLine(
  circuit: Circuit,
  type: ProtectiveDeviceType | undefined,
  cable: Cable | undefined,
  port: Port,
  boardLabel: string,
): CableLine {
  const before = laidLines.get(circuit);
  if (
    before?.around.type === type &&
    before?.around.cable === cable &&
    before?.around.port === port &&
    before.around.boardLabel === boardLabel
  )
    return before.line;
  const around = { type, cable, port, boardLabel };
  const line = layLine(circuit, around);
  laidLines.set(circuit, { around, line });
  return line;
}
