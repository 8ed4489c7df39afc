import type { Unit } from '../../installation/facts.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { type Check, type CheckContext, judge, NO_WORKING, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import type { Path } from '../../values/problem.ts';
import { stackSubject } from '../support/subjects.ts';

/** A unit with what is recorded of one of its parts. */
interface Loaded {
  readonly unit: string;
  readonly version: string | undefined;
  readonly path: Path;
}

/** The parts of a type that have a firmware of their own; one without a name where it has one for all. */
const partsOf = ({ type }: CompiledStack): readonly (string | undefined)[] =>
  type.known && type.value.firmwareParts !== undefined ? type.value.firmwareParts : [undefined];

function loadedOf({ stack }: CompiledStack, unit: Unit, index: number, part: string | undefined): Loaded {
  const path: Path = ['stacks', stack.id, 'units', unit.id];
  return {
    unit: `unit ${index + 1} of ${stack.name}`,
    version: part === undefined ? unit.firmware : unit.firmwareParts?.find(({ id }) => id === part)?.version,
    path: part === undefined ? [...path, 'firmware'] : [...path, 'firmwareParts'],
  };
}

function compare(
  context: CheckContext,
  subject: Subject,
  sets: readonly CompiledStack[],
): Found<'list' | 'versions'>[] {
  const units = sets.flatMap((compiled) =>
    compiled.stack.units.map((unit, index) => ({ compiled, unit, index })),
  );
  if (units.length < 2) return [];
  const parts = new Set(sets.flatMap(partsOf));
  const differing: string[] = [];
  const alike: string[] = [];
  const missing: Path[] = [];
  let most = 1;
  for (const part of parts) {
    const loaded = units
      .filter(({ compiled }) => partsOf(compiled).includes(part))
      .map(({ compiled, unit, index }) => loadedOf(compiled, unit, index, part));
    missing.push(...loaded.filter(({ version }) => version === undefined).map(({ path }) => path));
    const versions = [...new Set(loaded.flatMap(({ version }) => version ?? []))];
    const words = `${part === undefined ? '' : `${part} `}${versions.join(', ')}`;
    if (versions.length > 1) differing.push(words);
    else if (versions.length === 1) alike.push(words);
    most = Math.max(most, versions.length);
  }
  return [
    judge(stackFirmware.id, context, {
      subject,
      value: most,
      limit: 1,
      unit: '',
      graded: false,
      missing,
      data: { versions: most, list: (differing.length > 0 ? differing : alike).join('; ') },
      working: () => ({
        ...NO_WORKING,
        source: 'Firmware recorded for each unit, part by part where its type has parts.',
      }),
    }),
  ];
}

/** Paralleled units, and sets under one controller, must run the same firmware, part by part. */
export const stackFirmware: Check<'stack.firmware'> = checkOf({
  id: 'stack.firmware',
  title: 'Same firmware on all units',
  family: 'stack',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: {{versions}} different versions are loaded: {{list}}. Load the same on all before joining the parallel cable.',
    tight: '{{subject}}: {{list}}.',
    within: '{{subject}}: all units run {{list}}.',
    unknown: '{{subject}}: firmware not recorded. Missing: {{missing}}.',
  },
  run: (context) => {
    const { stacks, controllers } = context.installation;
    const led = new Set<string>();
    const groups = controllers.flatMap(({ controller }) => {
      const sets = stacks.filter(({ stack }) => controller.stackIds.includes(stack.id));
      // Sets of different types have firmware of their own, and need not be alike.
      const types = new Set(sets.map(({ stack }) => stack.inverterTypeId));
      if (sets.length < 2 || types.size > 1) return [];
      sets.forEach(({ stack }) => led.add(stack.id));
      const subject: Subject = { kind: 'controller', id: controller.id, label: `Sets of ${controller.name}` };
      return compare(context, subject, sets);
    });
    const alone = stacks.filter(({ stack }) => !led.has(stack.id));
    return [...groups, ...alone.flatMap((compiled) => compare(context, stackSubject(compiled), [compiled]))];
  },
});
