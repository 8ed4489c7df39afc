import type { CompiledStack, Installation } from '../../installation/installation.ts';
import type { Network, Part } from '../../installation/network.ts';
import type { Path } from '../../values/problem.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { onNetwork, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';

type Role = Part['role'];

/** One source of a set that somebody must be able to cut off, and the places where a device can do that. */
interface Way {
  readonly subject: Subject;
  readonly what: string;
  /** Places that do it together: one for each unit or board. Any of the groups is enough. */
  readonly groups: readonly (readonly Part[])[];
}

const at = ({ parts }: Network, role: Role, belongs: (part: Part) => boolean): Part[] =>
  parts.filter((part) => part.kind === 'device' && part.role === role && belongs(part));

function waysOfSet(network: Network, installation: Installation, { stack }: CompiledStack): Way[] {
  const own = (part: Part): boolean => part.stackId === stack.id;
  const units = network.parts.filter(({ kind, stackId }) => kind === 'inverter' && stackId === stack.id);
  const [first] = units;
  if (first === undefined) return [];
  const subject = { ...partSubject(network, first), id: `set ${stack.id}`, label: stack.name };
  const boards = new Set(
    installation.partitions.flatMap(({ id, stackId, kind }) =>
      stackId === stack.id && kind !== 'grid' ? [id] : [],
    ),
  );
  const grid = [at(network, 'grid-isolator', own), at(network, 'unit-grid', own)];
  const output = [
    at(network, 'unit-output', own),
    at(network, 'board-main', ({ partitionId }) => partitionId !== undefined && boards.has(partitionId)),
  ];
  return [
    { subject, what: 'the grid', groups: grid },
    { subject, what: 'its backup output', groups: output },
    { subject, what: 'its battery', groups: [at(network, 'battery-unit', own)] },
  ];
}

function waysOf(network: Network, installation: Installation): Way[] {
  const generators = installation.generators.flatMap(({ generator }): Way[] => {
    const part = network.parts.find(
      ({ kind, generatorId }) => kind === 'generator' && generatorId === generator.id,
    );
    return part === undefined
      ? []
      : [
          {
            subject: partSubject(network, part),
            what: 'it',
            groups: [at(network, 'generator-device', ({ generatorId }) => generatorId === generator.id)],
          },
        ];
  });
  const arrays = installation.arrays.flatMap(({ array }): Way[] => {
    const part = network.parts.find(({ kind, arrayId }) => kind === 'array' && arrayId === array.id);
    return part === undefined
      ? []
      : [
          {
            subject: partSubject(network, part),
            what: 'it',
            groups: [at(network, 'dc-switch', ({ arrayId }) => arrayId === array.id)],
          },
        ];
  });
  return [
    ...installation.stacks.flatMap((compiled) => waysOfSet(network, installation, compiled)),
    ...generators,
    ...arrays,
  ].filter(({ groups }) => groups.some((group) => group.length > 0));
}

/** Every member there: cut off. One of them denied: this place does not do it. Else it is not known. */
function answerOf(group: readonly Part[]): 'there' | 'denied' | readonly Path[] {
  if (group.length === 0 || group.some(({ fitted }) => fitted?.known === true && fitted.value === 'none'))
    return 'denied';
  const open = group.flatMap(({ fitted, from }) => (fitted?.known === true ? [] : [from]));
  return open.length === 0 ? 'there' : open;
}

function judgeWay(context: CheckContext, { subject, what, groups }: Way): Found<'what'> {
  const answers = groups.map(answerOf);
  const open = answers.find((one) => typeof one !== 'string');
  const isThere = answers.includes('there');
  if (!isThere && open !== undefined)
    return unknownFinding(wiringIsolation.id, context, subject, '', [...open]);
  return judge(wiringIsolation.id, context, {
    subject,
    value: isThere ? 1 : 0,
    limit: 1,
    unit: '',
    bound: 'at-least',
    graded: false,
    data: { what },
    working: () => ({
      ...NO_WORKING,
      source:
        'Whoever works on a part must be able to cut off and lock each source by itself: the grid, the backup output, each generator, the battery, each array.',
    }),
  });
}

/** A switch of its own for every source. */
export const wiringIsolation: Check<'wiring.isolation'> = checkOf({
  id: 'wiring.isolation',
  title: 'Every source can be isolated',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: nothing is there to cut {{what}} off with.',
    tight: '{{subject}}: {{what}} can be cut off.',
    within: '{{subject}} has a device that cuts it off.',
    unknown: '{{subject}}: whether every source can be cut off is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringIsolation.id, context, ({ network }) =>
      troubleOrOne(
        waysOf(network, context.installation).map((way) => judgeWay(context, way)),
        { ...WHOLE, label: 'Every source' },
      ),
    ),
});
