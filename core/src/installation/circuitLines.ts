import { field, known, type Known, unknownAt } from '../values/known.ts';
import { remember } from '../values/remember.ts';
import { boardPartId } from './build/boards.ts';
import { ALWAYS, Laying } from './build/laying.ts';
import { problemsOf } from './build/problems.ts';
import type { Circuit } from './facts.ts';
import type { Installation } from './installation.ts';
import type { Network, Port, TerminalName } from './network.ts';

/** The device and the cable of a circuit, up to what hangs on it. */
function layCircuit(
  laying: Laying,
  circuit: Circuit,
  board: Port,
  types: Installation['circuitDeviceTypes'],
): void {
  const from = ['circuits', circuit.id];
  const { device, cable, lines } = circuit;
  const found = device?.typeId === undefined ? undefined : types[device.typeId];
  const type = found === undefined ? unknownAt([...from, 'device', 'typeId']) : known(found);
  const names: TerminalName[] = [
    ...(lines ?? []),
    // Two lines are line to line and need no neutral; one and three have it.
    ...(lines?.length === 2 ? [] : (['N'] as const)),
    'PE',
  ];
  const ratedA: Known<number> = type.known
    ? known(type.value.ratedA)
    : field(device?.ratedA, ...from, 'device', 'ratedA');
  const protection = laying.part({
    id: `device of circuit ${circuit.id}`,
    kind: 'device',
    label: `device of ${circuit.name}`,
    from: [...from, 'device'],
    role: 'circuit',
    circuitId: circuit.id,
    fitted: device === undefined ? unknownAt([...from, 'device']) : known('yes'),
    ratedA,
    ...(type.known ? { typeName: type.value.name } : {}),
  });
  const part = laying.part({
    id: `circuit ${circuit.id}`,
    kind: 'circuit',
    label: circuit.name,
    from,
    circuitId: circuit.id,
  });
  const inPort = laying.port(protection, 'in', names);
  const outPort = laying.port(protection, 'out', names);
  laying.poles(inPort, outPort, { lines: ALWAYS, neutral: ALWAYS });
  const load = laying.port(part, 'in', names);
  laying.run(board, inPort, { use: 'ac', from: [...from, 'device'] });
  laying.run(outPort, load, {
    use: 'ac',
    from: [...from, 'cable'],
    lengthM: field(cable?.lengthM, ...from, 'cable', 'lengthM'),
    areaMm2: field(cable?.areaMm2, ...from, 'cable', 'areaMm2'),
  });
}

/**
 * The whole network, with device and cable of each circuit behind its board. No circuit switches anything or brings a source, so the
 * walk does without them; they are laid when somebody asks.
 */
export const wholeNetwork = remember((installation: Installation): Known<Network> => {
  const { network, circuits, circuitDeviceTypes } = installation;
  if (!network.known) return network;
  const spine = network.value;
  const buses = new Map(spine.ports.filter(({ role }) => role === 'bus').map((port) => [port.partId, port]));
  const laying = new Laying();
  for (const circuit of circuits) {
    const board = circuit.partitionId === undefined ? undefined : buses.get(boardPartId(circuit.partitionId));
    if (board !== undefined) layCircuit(laying, circuit, board, circuitDeviceTypes);
  }
  const leaves = laying.network();
  const whole = {
    ...spine,
    parts: [...spine.parts, ...leaves.parts],
    ports: [...spine.ports, ...leaves.ports],
    runs: [...spine.runs, ...leaves.runs],
    conductors: [...spine.conductors, ...leaves.conductors],
    contacts: [...spine.contacts, ...leaves.contacts],
  };
  // What was met while the spine was laid is not found again by looking at the whole.
  const told = new Set(spine.problems.map(({ message }) => message));
  const more = problemsOf(whole).filter(({ message }) => !told.has(message));
  return known({ ...whole, problems: [...spine.problems, ...more] });
});
