import type { ProtectiveDeviceType } from '../../catalogue/partTypes.ts';
import type { CodeProfileName } from '../../codes/profile.ts';
import { standardDevicesA } from '../../codes/deviceFor.ts';
import type { RegisteredFinding } from '../../checks/registry.ts';
import type { Design } from '../../design/schema.ts';
import { lackingIsolators } from '../setUp/isolators.ts';
import { freeId, once, type Candidate, type Trouble, typesAtHand } from './candidate.ts';

/** A place of a design that holds a protective device: one of the list, or the one of a circuit. */
interface Place {
  readonly label: string;
  readonly deviceId: string | undefined;
  readonly circuitId: string | undefined;
}

/** The devices that the findings of a cause stand on, by the network's parts and the circuits' cables. */
function placesOf({ cause, analysis: { installation } }: Trouble): readonly Place[] {
  const { network } = installation;
  return cause.findings.flatMap(({ subject }): Place[] => {
    const part = network.known ? network.value.parts.find(({ id }) => id === subject.id) : undefined;
    const label = subject.label.charAt(0).toLowerCase() + subject.label.slice(1);
    if (part?.from[0] === 'devices' && part.from[1] !== undefined)
      return [{ label, deviceId: String(part.from[1]), circuitId: undefined }];
    const circuit = installation.circuits.find(({ id }) => subject.id === `circuit ${id}`);
    return circuit === undefined ? [] : [{ label, deviceId: undefined, circuitId: circuit.id }];
  });
}

interface Change {
  readonly ratedA?: number;
  readonly typeId?: string;
}

function withDevice(design: Design, { deviceId, circuitId }: Place, change: Change): Design {
  return {
    ...design,
    devices: design.devices.map((one) => {
      if (one.id !== deviceId) return one;
      const { typeId: _type, ratedA: _rated, ...rest } = one;
      return { ...rest, ...change };
    }),
    circuits: design.circuits.map((one) => {
      if (one.id !== circuitId) return one;
      const { typeId: _type, ratedA: _rated, ...rest } = one.device ?? {};
      return { ...one, device: { ...rest, ...change } };
    }),
  };
}

const profileOf = ({ design }: Trouble): CodeProfileName => design.site.codeProfile ?? 'metric';

/** The largest standard rating that stays at, or where equal is no order below, a limit. */
function ratingBelow(profile: CodeProfileName, { limit, check }: RegisteredFinding): number | undefined {
  if (limit === undefined) return undefined;
  return standardDevicesA(profile).findLast((one) => (check === 'wiring.order' ? one < limit : one <= limit));
}

/** Each of those devices in the largest standard rating that keeps the order, or that the port behind it bears. */
export function smallerDevices(trouble: Trouble): Candidate[] {
  const places = placesOf(trouble);
  const changes = places.flatMap((place) => {
    const finding = trouble.cause.findings.find(
      ({ subject }) => subject.label.toLowerCase() === place.label.toLowerCase(),
    );
    const ratedA = finding && ratingBelow(profileOf(trouble), finding);
    return ratedA === undefined ? [] : [{ place, ratedA }];
  });
  const [first, ...more] = changes;
  if (first === undefined) return [];
  return [
    once(
      'smaller-devices',
      more.length === 0
        ? `${capital(first.place.label)} with ${first.ratedA} A`
        : 'Each of them in the largest standard rating below',
      (design) => changes.reduce((now, { place, ratedA }) => withDevice(now, place, { ratedA }), design),
    ),
  ];
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Other types of the same kind from those at hand, nearest rating first: for what a type alone decides. */
export function otherDeviceTypes(trouble: Trouble): Candidate[] {
  const [place] = placesOf(trouble);
  if (place === undefined) return [];
  const types = typesAtHand(trouble).filter((type) => type.kind === 'protective-device');
  const now = typeAt(trouble, place, types);
  if (now === undefined) return [];
  const { check, value = 0 } = trouble.cause.worst;
  // A library has dozens of one kind: what opens too little as well need not be tried.
  const opensEnough = ({ breakingA = 0 }: ProtectiveDeviceType): boolean =>
    check !== 'wiring.breaking' || breakingA >= value;
  return types
    .filter(
      (one) =>
        one.id !== now.id &&
        one.device === now.device &&
        one.ratedA >= now.ratedA &&
        one.poles >= now.poles &&
        one.ratedV >= now.ratedV &&
        opensEnough(one),
    )
    .sort((a, b) => a.ratedA - b.ratedA || a.poles - b.poles)
    .map((type) =>
      once(`type-${type.id}`, `${capital(place.label)}: ${type.name}`, (design) =>
        withDevice(design, place, { typeId: type.id }),
      ),
    );
}

function typeAt(
  { design }: Trouble,
  { deviceId, circuitId }: Place,
  types: readonly ProtectiveDeviceType[],
): ProtectiveDeviceType | undefined {
  const id =
    design.devices.find((one) => one.id === deviceId)?.typeId ??
    design.circuits.find((one) => one.id === circuitId)?.device?.typeId;
  return types.find((one) => one.id === id);
}

/** An isolator for each source that has none: those denied are put in, those nobody listed are listed. */
export function isolators({ design }: Trouble): Candidate[] {
  const denied = design.devices.filter(({ fitted }) => fitted === 'none');
  const taken = [...design.devices];
  const lacking = lackingIsolators(design, (prefix) => {
    const id = freeId(prefix, taken);
    taken.push({ id, role: 'service-main' });
    return id;
  });
  if (denied.length === 0 && lacking.length === 0) return [];
  return [
    once('isolators', 'Fit a device at every source that has none', (draft) => ({
      ...draft,
      devices: [
        ...draft.devices.map((one) => (one.fitted === 'none' ? { ...one, fitted: 'yes' as const } : one)),
        ...lacking.map((one) => ({ ...one, fitted: 'yes' as const })),
      ],
    })),
  ];
}
