import type { Design } from '../../design/schema.ts';
import { capabilityWithout } from '../../figures/capability/capability.ts';
import { SUPPLY_LINES } from '../../design/references.ts';
import { ARRANGEMENT_WORDS } from '../../catalogue/arrangementWords.ts';
import { arrangementsFor, lineOfUnit } from '../setUp/arrangements.ts';
import { wantedEarths } from '../../checks/bonding/bondingEarthPoint.ts';
import {
  type Candidate,
  inBank,
  inStack,
  once,
  type Trouble,
  typesAtHand,
  withUnbacked,
} from './candidate.ts';

type PvArray = Design['arrays'][number];

const inArray =
  (arrayId: string, change: (array: PvArray) => PvArray) =>
  (design: Design): Design => ({
    ...design,
    arrays: design.arrays.map((array) => (array.id === arrayId ? change(array) : array)),
  });

/** The arrays that a finding is about. */
function arraysOf({ design, cause }: Trouble): readonly PvArray[] {
  const ids = [cause.worst.subject.id, ...(cause.worst.subject.about ?? []).map(({ id }) => id)];
  return design.arrays.filter(({ id }) => ids.includes(id));
}

/** One bank for all inverters, or one for each: the other of the two. */
export function otherService({ compiled }: Trouble): Candidate[] {
  if (compiled === undefined || typeof compiled.stack.bank !== 'object') return [];
  const isOwn = compiled.stack.bank.serves === 'one-unit';
  return [
    once(
      'bank-serves',
      isOwn ? 'One bank like this for all units' : 'A bank like this for each unit',
      inBank(compiled.stack.id, (bank) => ({ ...bank, serves: isOwn ? 'all-units' : 'one-unit' })),
    ),
  ];
}

/** All modules of one of the types that are there. */
export function oneBatteryType(trouble: Trouble): Candidate[] {
  const { compiled } = trouble;
  if (compiled === undefined || typeof compiled.stack.bank !== 'object') return [];
  const { bank } = compiled.stack;
  const ids = new Set([bank.batteryTypeId, ...bank.modules.map(({ batteryTypeId }) => batteryTypeId)]);
  return typesAtHand(trouble)
    .filter(({ id }) => ids.has(id))
    .map((type) =>
      once(
        `modules-${type.id}`,
        `All modules of one type: ${type.name}`,
        inBank(compiled.stack.id, (one) => ({
          ...one,
          batteryTypeId: type.id,
          modules: one.modules.map(({ batteryTypeId: _, ...module }) => module),
        })),
      ),
    );
}

/** A combiner bar with more places. */
export function largerBars(trouble: Trouble): Candidate[] {
  const { compiled } = trouble;
  const now = compiled?.bar.known === true ? compiled.bar.value : 'none';
  if (compiled === undefined || now === 'none') return [];
  return typesAtHand(trouble)
    .flatMap((type) => (type.kind === 'combiner-bar' && type.places > now.places ? [type] : []))
    .sort((a, b) => a.places - b.places)
    .map((type) =>
      once(
        `bar-${type.id}`,
        `Another bar: ${type.name}`,
        inBank(compiled.stack.id, (bank) => ({ ...bank, barTypeId: type.id })),
      ),
    );
}

/** The battery settings of one of the units on all of them. */
export function oneProfile({ compiled }: Trouble): Candidate[] {
  if (compiled === undefined) return [];
  const profiles = compiled.stack.units.flatMap(({ batteryProfile }) => batteryProfile ?? []);
  return [...new Set(profiles)].map((profile) =>
    once(
      `profile-${profile}`,
      `Load the battery settings “${profile}” into every unit`,
      inStack(compiled.stack.id, (stack) => ({
        ...stack,
        units: stack.units.map((unit) => ({ ...unit, batteryProfile: profile })),
      })),
    ),
  );
}

/** Boards that a set cannot feed in island go to the grid side. */
export function boardsOntoGrid({ design, compiled }: Trouble): Candidate[] {
  if (compiled === undefined || design.site.grid === 'none') return [];
  const fed = new Set(compiled.partitions.map(({ id }) => id));
  return [
    once('boards-grid', 'Put these boards on the grid side', (draft) => ({
      ...draft,
      partitions: draft.partitions.map((one) =>
        fed.has(one.id) ? { id: one.id, name: one.name, kind: 'grid' } : one,
      ),
    })),
  ];
}

/** Circuits of dark lines go to a line that has an inverter, or leave the set. */
export function ontoLitLine({ design, compiled }: Trouble): Candidate[] {
  if (compiled?.supply.known !== true) return [];
  const { stack, supply } = compiled;
  const capability = capabilityWithout(compiled);
  if (!capability.known) return [];
  const lit = supply.value.lines.filter((_, at) => (capability.value.unitsOnLine[at] ?? 0) > 0);
  const fed = new Set(compiled.partitions.map(({ id }) => id));
  const isDark = ({ partitionId, lines }: Design['circuits'][number]): boolean =>
    fed.has(partitionId ?? '') && lines?.some((line) => !lit.includes(line)) === true;
  const dark = new Set(design.circuits.filter(isDark).map(({ id }) => id));
  const canMove = design.circuits.every(
    ({ id, lines, lineFixed }) => !dark.has(id) || (lines?.length === 1 && lineFixed !== 'yes'),
  );
  return [
    ...(canMove ? lit : []).map((line) =>
      once(`lit-${line}`, `Move what is dark to ${line}`, (draft) => ({
        ...draft,
        circuits: draft.circuits.map((one) => (dark.has(one.id) ? { ...one, lines: [line] } : one)),
      })),
    ),
    once('dark-off', 'Leave what is dark off the backup output', (draft) => {
      const { design: made, id } = withUnbacked(draft, stack.id);
      return {
        ...made,
        circuits: made.circuits.map((one) => (dark.has(one.id) ? { ...one, partitionId: id } : one)),
      };
    }),
  ];
}

/** AC-coupled arrays are taken off while the generator runs. */
export function offWithGenerator({ design, compiled }: Trouble): Candidate[] {
  const fed = new Set(compiled?.partitions.map(({ id }) => id));
  const staying = design.arrays.filter(
    ({ coupling, partitionId, withGenerator }) =>
      coupling === 'ac' && fed.has(partitionId ?? '') && withGenerator === 'stays',
  );
  if (staying.length === 0) return [];
  const ids = new Set(staying.map(({ id }) => id));
  return [
    once(
      'pv-off-with-generator',
      `Disconnect ${staying.map(({ name }) => name).join(', ')} while the generator runs`,
      (draft) => ({
        ...draft,
        arrays: draft.arrays.map((one) =>
          ids.has(one.id) ? { ...one, withGenerator: 'disconnected' } : one,
        ),
      }),
    ),
  ];
}

/** Rapid shutdown on the array. */
export const rapidShutdown = (trouble: Trouble): Candidate[] =>
  arraysOf(trouble).map(({ id, name }) =>
    once(
      `shutdown-${id}`,
      `Fit rapid shutdown to ${name}`,
      inArray(id, (one) => ({ ...one, rapidShutdown: 'fitted' })),
    ),
  );

/** Fewer strings side by side on an input. */
export const fewerStrings = (trouble: Trouble): Candidate[] =>
  arraysOf(trouble).flatMap(({ id, name, places = [] }) => {
    const most = Math.max(0, ...places.map(({ strings }) => strings)) - 1;
    return most < 1
      ? []
      : [
          {
            id: `fewer-strings-${id}`,
            title: (step: number) => `${step} strings side by side fewer of ${name} on an input`,
            most,
            make: inSteps(id),
          },
        ];
  });

const inSteps =
  (arrayId: string) =>
  (design: Design, step: number): Design =>
    inArray(arrayId, ({ places = [], ...one }) => ({
      ...one,
      places: places.map((place) => ({ ...place, strings: Math.max(1, place.strings - step) })),
    }))(design);

/** Of free inputs so many are tried: one is as good as another. */
const MOST_INPUTS = 4;

/** An array that stands on several inputs, or beside another one, goes to an input that nothing is plugged into. */
export const freeInputs = (trouble: Trouble): Candidate[] =>
  arraysOf(trouble).flatMap((array) => {
    const { design, analysis } = trouble;
    const taken = new Set(
      design.arrays
        .filter(({ id }) => id !== array.id)
        .flatMap(({ places = [] }) =>
          places.map(({ stackId, unitId, input }) => `${stackId} ${unitId} ${input}`),
        ),
    );
    const strings = (array.places ?? []).reduce((sum, place) => sum + place.strings, 0);
    const free = analysis.installation.stacks.flatMap(({ stack, type }) => {
      const count = type.known && type.value.pvInputs !== undefined ? type.value.pvInputs.count : 0;
      return stack.units.flatMap((unit, at) =>
        Array.from({ length: count }, (_, index) => index + 1)
          .filter((input) => !taken.has(`${stack.id} ${unit.id} ${input}`))
          .map((input) =>
            once(
              `input-${array.id}-${stack.id}-${unit.id}-${input}`,
              `Plug ${array.name} into input ${input} of unit ${at + 1} of ${stack.name}`,
              inArray(array.id, (one) => ({
                ...one,
                places: [
                  { id: one.places?.[0]?.id ?? 'p1', stackId: stack.id, unitId: unit.id, input, strings },
                ],
              })),
            ),
          ),
      );
    });
    return free.slice(0, MOST_INPUTS);
  });

/** Everything that has to be earthed at one point. */
export function oneEarthPoint({ design, analysis }: Trouble): Candidate[] {
  const main = [...design.earthPoints].sort((a, b) => b.joins.length - a.joins.length)[0];
  if (main === undefined) return [];
  const joins = [
    ...new Set([...design.earthPoints.flatMap((one) => one.joins), ...wantedEarths(analysis.installation)]),
  ];
  return [
    once('one-earth-point', `Join every earth at ${main.name}`, (draft) => ({
      ...draft,
      earthPoints: [{ ...main, joins }],
    })),
  ];
}

/** The device of a battery stands as near to it as it may. */
export function nearerDevice({ design, analysis, cause }: Trouble): Candidate[] {
  const limitM = cause.worst.limit;
  const { network } = analysis.installation;
  const part = network.known
    ? network.value.parts.find(({ id }) => id === cause.worst.subject.id)
    : undefined;
  const device = design.devices.find(({ id }) => part?.from[0] === 'devices' && part.from[1] === id);
  if (limitM === undefined || device === undefined) return [];
  return [
    once('nearer-device', `Put it within ${limitM} m of the battery`, (draft) => ({
      ...draft,
      devices: draft.devices.map((one) => (one.id === device.id ? { ...one, fromBatteryM: limitM } : one)),
    })),
  ];
}

/** Another way to make the lines of the supply that the type allows with so many units. */
export function otherArrangements({ design, compiled }: Trouble): Candidate[] {
  const { supply } = design.site;
  if (compiled?.type.known !== true || supply === undefined) return [];
  const { stack, type } = compiled;
  const lines = SUPPLY_LINES[supply];
  return arrangementsFor(type.value, design.site, stack.units.length)
    .filter((arrangement) => arrangement !== stack.arrangement)
    .map((arrangement) =>
      once(
        `arrangement-${arrangement}`,
        `Another arrangement: ${ARRANGEMENT_WORDS[arrangement]}`,
        inStack(stack.id, (one) => ({
          ...one,
          arrangement,
          units: one.units.map(({ line: _, ...unit }, at) => {
            const line = lineOfUnit(arrangement, at, one.units.length, lines);
            return line === undefined ? unit : { ...unit, line };
          }),
        })),
      ),
    );
}

/** The switch of an enable input that the type does not have is left out. */
export function noEnableSwitch({ design, compiled }: Trouble): Candidate[] {
  const listed = design.devices.find(
    ({ role, stackId }) => role === 'enable-switch' && stackId === compiled?.stack.id,
  );
  return listed === undefined
    ? []
    : [
        once('no-enable-switch', 'Leave the enable switch out', (draft) => ({
          ...draft,
          devices: draft.devices.map((one) => (one.id === listed.id ? { ...one, fitted: 'none' } : one)),
        })),
      ];
}
