import type { Cable } from '../../installation/facts.ts';
import type { Installation } from '../../installation/installation.ts';
import type { Part } from '../../installation/network.ts';
import { field, known, unknownAt } from '../../values/known.ts';
import type { Branch } from '../bank/bankLay.ts';
import { bankCircuitOf } from '../bank/ofSet.ts';
import type { CableLine, End, Joined } from './cableLine.ts';

const LEADS: ReadonlySet<Branch['kind']> = new Set(['module-lead', 'link', 'group-lead']);

const isSamePlace = (a: Branch['at'], b: Branch['at']): boolean =>
  'source' in a ? 'source' in b && a.source === b.source : 'resistor' in b && a.resistor === b.resistor;

/** The leads of a bank that is solved as a network; undefined where it is not known, or is one string. */
export function bankLeads(
  compiled: Installation['stacks'][number],
  joined: Joined,
  cables: ReadonlyMap<string, Cable>,
): CableLine[] | undefined {
  const circuit = bankCircuitOf(compiled);
  if (!circuit.known || typeof circuit.value === 'string') return undefined;
  const { stack } = compiled;
  const { branches } = circuit.value;
  const endAt = (part: Part | undefined): End => {
    const port = joined.portsOf.get(part?.id ?? '')?.[0];
    return { partId: part?.id ?? stack.id, label: part?.label ?? stack.name, port };
  };
  const own = joined.network.parts.filter(({ stackId }) => stackId === stack.id);
  const bars = endAt(own.find(({ kind }) => kind === 'bar'));
  const moduleEnd = (id: string): End =>
    endAt(own.find(({ kind, moduleId }) => kind === 'module' && moduleId === id));
  return branches
    .filter(({ kind, areaMm2 }) => LEADS.has(kind) && areaMm2 !== Infinity)
    .map((branch): CableLine => {
      const id = `bank ${stack.id} ${branch.id}`;
      const [first = bars, second = bars] = (branch.moduleIds ?? []).map(moduleEnd);
      return {
        id,
        label: `${branch.label} of ${stack.name}`,
        ends: [first, second],
        devices: branches
          .filter(({ kind, at }) => kind === 'device' && isSamePlace(at, branch.at))
          .map(({ label, ratedA, path }) => {
            const listed = compiled.batteryDevices.find((one) => one.path[1] === path[1]);
            const part = listed && own.find(({ kind, from }) => kind === 'device' && from[1] === path[1]);
            const ports = joined.portsOf.get(part?.id ?? '') ?? [];
            return {
              partId: undefined,
              label,
              ratedA: ratedA ?? unknownAt(path),
              isFuse: false,
              curve: undefined,
              role: listed?.role,
              figures: listed?.device,
              typeId: listed?.deviceTypeId,
              takes: ports[0]?.takes ?? unknownAt(path),
              ports,
              path,
            };
          }),
        endDevices: [],
        names: ['DC+', 'DC−'],
        use: 'battery',
        lengthM: field(branch.lengthM, ...branch.path.slice(0, -1).map(String), 'lengthM'),
        areaMm2: field(branch.areaMm2, ...branch.path.map(String)),
        lengthPath: [...branch.path.slice(0, -1), 'lengthM'],
        areaPath: branch.path,
        cable: cables.get(id),
        circuit: undefined,
        from: branch.path,
        branch: { stackId: stack.id, id: branch.id },
      };
    });
}

/** A battery lead whose length follows from the wall plan is as long as the bank is solved with. */
export function asSolved(line: CableLine, joined: Joined, installation: Installation): CableLine {
  const port = line.ends.find(({ port: one }) => one?.role === 'battery');
  const inverter = port && joined.parts.get(port.partId);
  if (inverter?.kind !== 'inverter') return line;
  const compiled = installation.stacks.find(({ stack }) => stack.id === inverter.stackId);
  const circuit = compiled && bankCircuitOf(compiled);
  if (circuit?.known !== true || typeof circuit.value === 'string') return line;
  const tap = circuit.value.taps.find(({ unitId }) => unitId === inverter.unitId);
  return tap === undefined ? line : { ...line, lengthM: known(tap.leadM) };
}
