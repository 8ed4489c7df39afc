import type { Circuit, Design, Stack } from '../../design/schema.ts';
import { circuitVa } from '../../figures/loads/circuitVa.ts';
import { importanceOf, RANK } from '../../figures/loads/importance.ts';
import { isUnitPerLine } from '../../catalogue/inverterType.ts';
import { isCarriedInIsland } from '../../installation/partitionKinds.ts';
import { SUPPLY_LINES } from '../../design/references.ts';
import { planBus } from '../wiring.ts';
import { withDelays } from '../stagger.ts';
import {
  type Candidate,
  freeId,
  inStack,
  once,
  type Trouble,
  typesAtHand,
  withUnbacked,
} from './candidate.ts';

/** How many circuits are tried one by one. */
const TRIED = 6;
/** How many units more are tried. */
const MORE_UNITS = 3;
/** How many other types are tried. */
const OTHER_TYPES = 3;

const carriedBy = (design: Design, stackId: string): Circuit[] => {
  const fed = new Set(
    design.partitions
      .filter((one) => one.stackId === stackId && (one.kind === 'backup' || one.kind === 'shed'))
      .map(({ id }) => id),
  );
  return design.circuits.filter(({ partitionId }) => fed.has(partitionId ?? ''));
};

const largestFirst = (a: Circuit, b: Circuit): number => (circuitVa(b) ?? 0) - (circuitVa(a) ?? 0);

/** One circuit to another line. */
function moves({ design, cause, compiled }: Trouble): Candidate[] {
  const line = cause.worst.subject.about?.find(({ kind }) => kind === 'supply-line')?.id;
  const lines = design.site.supply === undefined ? [] : SUPPLY_LINES[design.site.supply];
  if (compiled === undefined || line === undefined || lines.length < 2) return [];
  const circuits = carriedBy(design, compiled.stack.id)
    .filter((one) => one.lines?.length === 1 && one.lines[0] === line && one.lineFixed !== 'yes')
    .sort(largestFirst)
    .slice(0, TRIED);
  return circuits.flatMap((circuit) =>
    lines
      .filter((other) => other !== line)
      .map((other) =>
        once(`move-${circuit.id}-${other}`, `Move ${circuit.name} from ${line} to ${other}`, (draft) => ({
          ...draft,
          circuits: draft.circuits.map((one) => (one.id === circuit.id ? { ...one, lines: [other] } : one)),
        })),
      ),
  );
}

/** Circuits that a set carries and that need not run: what matters least first, of those the largest. */
export function leastImportantFirst({ design, compiled }: Trouble): Circuit[] {
  if (compiled === undefined) return [];
  return carriedBy(design, compiled.stack.id)
    .filter((circuit) => importanceOf(circuit) !== 'must')
    .sort(
      (a, b) => RANK[importanceOf(b) ?? 'could'] - RANK[importanceOf(a) ?? 'could'] || largestFirst(a, b),
    );
}

/** What matters least leaves the backup output, one circuit after the other. What must run stays. */
function leaving(trouble: Trouble): Candidate[] {
  const { compiled } = trouble;
  if (compiled === undefined) return [];
  const order = leastImportantFirst(trouble);
  return [
    {
      id: 'leave-off',
      title: (step) =>
        `Leave ${order
          .slice(0, step)
          .map(({ name }) => name)
          .join(', ')} off the backup output`,
      most: Math.min(TRIED, order.length),
      // Less load on one line may put the others out of balance; every other limit only gains by it.
      isRising: !trouble.cause.worst.check.startsWith('balance.'),
      make: (draft, step) => {
        const ids = new Set(order.slice(0, step).map(({ id }) => id));
        const { design: made, id: toId } = withUnbacked(draft, compiled.stack.id);
        return {
          ...made,
          circuits: made.circuits.map((one) => (ids.has(one.id) ? { ...one, partitionId: toId } : one)),
        };
      },
    },
  ];
}

/** Start delays on the circuits that start together. */
function delays({ compiled, catalogue, cause }: Trouble): Candidate[] {
  const helps = cause.worst.check === 'surge.cold-pickup' || cause.worst.check === 'surge.staggered';
  return compiled === undefined || !helps
    ? []
    : [
        once('stagger', 'Stagger the starts with delays', (design) =>
          withDelays(design, catalogue, compiled.stack.id),
        ),
      ];
}

/** More units of the same type: on each line, where each line has units of its own. */
export function moreUnits({ compiled }: Trouble): Candidate[] {
  if (compiled === undefined) return [];
  const { stack, type } = compiled;
  const perLine = isUnitPerLine(stack.arrangement);
  const lines = [...new Set(stack.units.map(({ line }) => line))];
  const grows = stack.arrangement === 'one-unit' ? 'parallel-single-phase' : stack.arrangement;
  if (!type.known || grows === undefined || !type.value.arrangements.includes(grows)) return [];
  return [
    {
      id: 'more-units',
      title: (step) =>
        perLine
          ? `${step === 1 ? 'One more unit' : `${step} more units`} on each line`
          : step === 1
            ? 'One more unit'
            : `${step} more units`,
      most: MORE_UNITS,
      isRising: true,
      make: (design, step) =>
        withItsDevices(
          inStack(stack.id, (one) => {
            const larger = { ...one, arrangement: grows, units: grown(one, lines, perLine, step) };
            // The bus is plugged again through all of them.
            const plan =
              one.busLinks === undefined && one.units.length > 1 ? undefined : planBus(larger, type.value);
            return plan === undefined
              ? larger
              : { ...larger, busLinks: plan.busLinks, terminated: [...plan.terminated] };
          })(design),
          stack,
        ),
    },
  ];
}

/** Leads, settings and place on the bars as of a unit of the same line; what belongs to one box alone is not copied. */
function grown(
  stack: Stack,
  lines: readonly Stack['units'][number]['line'][],
  perLine: boolean,
  step: number,
): Stack['units'] {
  const units = [...stack.units];
  for (let more = 0; more < step; more += 1)
    for (const line of perLine ? lines : [undefined]) {
      const like = stack.units.find((unit) => !perLine || unit.line === line) ?? stack.units[0];
      if (like === undefined) continue;
      const { serial: _serial, busAddress: _address, ...rest } = like;
      units.push({ ...rest, id: freeId('u', units) });
    }
  return units;
}

/** A new unit gets the devices that its fellows have. */
function withItsDevices(design: Design, before: Stack): Design {
  const now = design.stacks.find(({ id }) => id === before.id);
  const [like] = before.units;
  const known = new Set(before.units.map(({ id }) => id));
  const devices = [...design.devices];
  for (const unit of now?.units ?? [])
    if (!known.has(unit.id))
      for (const device of design.devices)
        if (device.stackId === before.id && device.unitId === like?.id)
          devices.push({ ...device, id: freeId('d', devices), unitId: unit.id });
  return devices.length === design.devices.length ? design : { ...design, devices };
}

/** A larger type of the same kind from the catalogue. */
export function otherInverters(trouble: Trouble, wanted: 'larger' | 'any'): Candidate[] {
  const { compiled } = trouble;
  if (compiled?.type.known !== true) return [];
  const { value: now } = compiled.type;
  const { stack } = compiled;
  const fitting = typesAtHand(trouble).flatMap((type) =>
    type.kind === 'inverter' &&
    type.id !== now.id &&
    type.nativeLines === now.nativeLines &&
    Math.abs(type.outputV - now.outputV) <= 0.1 * now.outputV &&
    stack.arrangement !== undefined &&
    type.arrangements.includes(stack.arrangement) &&
    (wanted === 'any' || type.ratedVa > now.ratedVa)
      ? [type]
      : [],
  );
  return fitting
    .sort((a, b) => a.ratedVa - b.ratedVa)
    .slice(0, wanted === 'any' ? fitting.length : OTHER_TYPES)
    .map((type) =>
      once(`inverter-${type.id}`, `Another inverter type: ${type.name}`, (design) => ({
        ...inStack(stack.id, (one) => ({ ...one, inverterTypeId: type.id }))(design),
      })),
    );
}

/** Everything that lightens or strengthens a set. */
export const loadSide = (trouble: Trouble): Candidate[] => [
  ...moves(trouble),
  ...delays(trouble),
  ...leaving(trouble),
  ...moreUnits(trouble),
  ...otherInverters(trouble, 'larger'),
];

/** What must run comes onto the backup output. */
function ontoBackupOf(
  { design }: Trouble,
  what: string,
  isMeant: (circuit: Circuit) => boolean,
): Candidate[] {
  const to = design.partitions.find(({ kind }) => kind === 'backup');
  if (to === undefined) return [];
  const dark = new Set(design.partitions.filter((one) => !isCarriedInIsland(one)).map(({ id }) => id));
  return [
    once('onto-backup', `Move ${what} onto ${to.name}`, (draft) => ({
      ...draft,
      circuits: draft.circuits.map((circuit) =>
        dark.has(circuit.partitionId ?? '') && isMeant(circuit)
          ? { ...circuit, partitionId: to.id }
          : circuit,
      ),
    })),
  ];
}

export const ontoBackup = (trouble: Trouble): Candidate[] =>
  ontoBackupOf(trouble, 'what must run', (circuit) => importanceOf(circuit) === 'must');

/** The router where it is carried through an outage. */
export const routerOntoBackup = (trouble: Trouble): Candidate[] =>
  ontoBackupOf(trouble, 'the router', ({ feedsRouter }) => feedsRouter === 'yes');

export const leaveOff = leaving;
