import { isMagnetic, MAGNETIC_BANDS } from '../../codes/magneticTrip.ts';
import { guardedLines } from '../../figures/wiring/cableLines.ts';
import type { CompiledStack, Installation } from '../../installation/installation.ts';
import type { Circuit, Partition } from '../../installation/facts.ts';
import type { Network, Part } from '../../installation/network.ts';
import type { Path } from '../../values/problem.ts';
import { groupBy } from '../../values/groupBy.ts';
import { type Check, type CheckContext, judge, NO_WORKING, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { cableSubject } from '../support/cables.ts';
import { devicesOf, isGuard } from '../support/devices.ts';
import { onNetwork, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';

/** A device that opens on too much current; of units in parallel all of one line together. */
interface Guard {
  readonly label: string;
  readonly ratedA: number;
  readonly curve: string | undefined;
  readonly path: Path;
}

/** Margin below which an order is called tight: equal ratings, and nothing else. */
const EQUAL = 1e-6;

function guardOf(part: Part | undefined): Guard | undefined {
  if (part === undefined || !isGuard(part) || part.ratedA?.known !== true) return undefined;
  return {
    label: part.label,
    ratedA: part.ratedA.value,
    curve: part.device?.curve,
    path: [...part.from, 'ratedA'],
  };
}

/** The output devices of a set on one line: their ratings add, since their units share. Undefined while one of them is not known. */
function outputsOnLine(
  network: Network,
  { stack }: CompiledStack,
  line: string | undefined,
): Guard | undefined {
  const units = stack.units.filter((unit) => unit.line === undefined || unit.line === line);
  const parts = devicesOf(network, 'unit-output').filter(({ stackId }) => stackId === stack.id);
  const guards = units.map(({ id }) => guardOf(parts.find(({ unitId }) => unitId === id)));
  const [first] = guards;
  if (first === undefined || guards.some((one) => one === undefined)) return undefined;
  return {
    label:
      guards.length === 1 ? first.label : `the ${guards.length} output devices of ${stack.name} together`,
    ratedA: guards.reduce((sum, one) => sum + (one?.ratedA ?? 0), 0),
    curve: guards.length === 1 ? first.curve : undefined,
    path: first.path,
  };
}

interface Above {
  readonly network: Network;
  readonly installation: Installation;
  readonly mains: ReadonlyMap<string, Part>;
  readonly service: Guard | undefined;
}

/** What stands above the board of a partition on a line. */
function aboveBoard(
  { network, installation, service }: Above,
  partition: Partition,
  line: string | undefined,
): Guard | undefined {
  if (partition.kind === 'grid') return service;
  const compiled = installation.stacks.find(({ stack }) => stack.id === partition.stackId);
  return compiled && outputsOnLine(network, compiled, line);
}

/** What stands next above a circuit. */
function aboveCircuit(above: Above, { partitionId, lines }: Circuit): Guard | undefined {
  const partition = above.installation.partitions.find(({ id }) => id === partitionId);
  if (partition === undefined) return undefined;
  return guardOf(above.mains.get(partition.id)) ?? aboveBoard(above, partition, lines?.[0]);
}

/** Ratings in order, and where the curve above is a quicker one also the currents at which both open at once. */
function compare(
  context: CheckContext,
  subject: Subject,
  below: Guard,
  above: Guard,
): Found<'above' | 'here' | 'there'> {
  const [quick, slow] = [above.curve, below.curve];
  const isQuicker =
    isMagnetic(quick) && isMagnetic(slow) && MAGNETIC_BANDS[quick].from < MAGNETIC_BANDS[slow].from;
  const sureA = isMagnetic(quick) ? MAGNETIC_BANDS[quick].from * above.ratedA : 0;
  const needA = isMagnetic(slow) ? MAGNETIC_BANDS[slow].to * below.ratedA : 0;
  const byCurve = isQuicker && below.ratedA < above.ratedA && sureA < needA;
  return judge(wiringOrder.id, context, {
    subject,
    value: byCurve ? needA : below.ratedA,
    limit: byCurve ? sureA : above.ratedA,
    unit: 'A',
    tightMargin: EQUAL,
    ...(byCurve ? { worst: 'tight' as const } : {}),
    data: {
      above: above.label,
      here: byCurve ? 'opens at once for certain from' : 'is rated',
      there: byCurve ? 'may do so from' : 'is rated',
    },
    working: () => ({
      ...NO_WORKING,
      inputs: [
        { label: 'Rating here', path: below.path, value: below.ratedA, unit: 'A' },
        { label: `Rating of ${above.label}`, path: above.path, value: above.ratedA, unit: 'A' },
      ],
      source:
        'The device nearest to a fault should open first: it is rated below the one above it, and its curve is not the slower one.',
    }),
  });
}

/** Order of devices: what stands nearer to the load is rated below what stands above it. */
export const wiringOrder: Check<'wiring.order'> = checkOf({
  id: 'wiring.order',
  title: 'Order of devices',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: its device {{here}} {{value}}, {{above}} above it {{there}} {{limit}}: the whole board goes off before this one opens.',
    tight:
      '{{subject}}: its device {{here}} {{value}}, {{above}} above it {{there}} {{limit}}: either may open first.',
    within: '{{subject}}: each is rated below the one above it.',
    unknown: '{{subject}}: the order of devices is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringOrder.id, context, ({ network }) => {
      const { installation } = context;
      const lines = guardedLines(installation);
      if (!lines.known) return [];
      const above: Above = {
        network,
        installation,
        mains: new Map(devicesOf(network, 'board-main').map((part) => [part.partitionId ?? '', part])),
        service: guardOf(devicesOf(network, 'service-main')[0]),
      };
      const ofCircuits = lines.value.flatMap((line): Found<'above' | 'here' | 'there'>[] => {
        const [device] = line.devices;
        if (line.circuit === undefined || device?.ratedA.known !== true) return [];
        const next = aboveCircuit(above, line.circuit);
        if (next === undefined) return [];
        const below: Guard = {
          label: line.label,
          ratedA: device.ratedA.value,
          curve: device.curve,
          path: [...device.path, 'ratedA'],
        };
        return [compare(context, cableSubject(installation, line), below, next)];
      });
      return troubleOrOne([...ofCircuits, ...ofBoards(context, above), ...ofUnits(context, above)], {
        ...WHOLE,
        label: 'Every device whose rating is stated',
      });
    }),
});

function ofBoards(context: CheckContext, above: Above): Found<'above' | 'here' | 'there'>[] {
  return [...above.mains].flatMap(([id, part]): Found<'above' | 'here' | 'there'>[] => {
    const below = guardOf(part);
    const partition = above.installation.partitions.find((one) => one.id === id);
    const next = partition && aboveBoard(above, partition, undefined);
    return below === undefined || next === undefined
      ? []
      : [compare(context, partSubject(above.network, part), below, next)];
  });
}

/** Grid devices of units against what stands ahead of them all. */
function ofUnits(context: CheckContext, { network, service }: Above): Found<'above' | 'here' | 'there'>[] {
  const isolators = groupBy(devicesOf(network, 'grid-isolator'), ({ stackId }) => stackId ?? '');
  return devicesOf(network, 'unit-grid').flatMap((part): Found<'above' | 'here' | 'there'>[] => {
    const below = guardOf(part);
    const next = guardOf(isolators.get(part.stackId ?? '')?.[0]) ?? service;
    return below === undefined || next === undefined
      ? []
      : [compare(context, partSubject(network, part), below, next)];
  });
}
