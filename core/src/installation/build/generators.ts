import { field, type Known, known } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import { generatorLines } from '../generatorLines.ts';
import type { CompiledGenerator } from '../installation.ts';
import { MODE_KINDS, type ModeKind } from '../modeKinds.ts';
import type { ClosedIn, Port, TerminalName } from '../network.ts';
import type { Given } from './given.ts';
import { ALWAYS, closedIn, type Laying, NEVER, takesOf, unknownIn } from './laying.ts';
import { deviceBehind } from './lines.ts';
import type { LaidSet } from './outputs.ts';
import { buildingNames } from './service.ts';

const MODE_OF: Readonly<Record<NonNullable<CompiledGenerator['generator']['connection']>, ModeKind>> = {
  'generator-port': 'generator-port',
  'transfer-switch': 'transfer-switch',
  inlet: 'generator-inlet',
};

/** Whether the frame bond of a set is there: as it is on site, else as its type says. */
function frameBond({ generator, type }: CompiledGenerator): ClosedIn {
  const rule: Known<'bonded' | 'floating'> =
    generator.neutralBond !== undefined
      ? known(generator.neutralBond)
      : type.known
        ? field(type.value.neutral, 'types', type.value.id, 'neutral')
        : type;
  if (!rule.known) return unknownIn(MODE_KINDS, ...rule.missing);
  return rule.value === 'bonded' ? ALWAYS : NEVER;
}

/** The conductors a set brings: its lines where it reaches fewer than the building has, neutral and earth. */
function namesOf(given: Given, { generator, type }: CompiledGenerator): TerminalName[] {
  const reached = type.known ? generatorLines(generator, type.value, given.supply) : undefined;
  const lines = reached?.known === true ? reached.value : given.supply.lines.map((_, index) => index);
  return [
    ...lines.flatMap((index): TerminalName[] => {
      const line = given.supply.lines[index];
      return line === undefined ? [] : [line];
    }),
    'N',
    'PE',
  ];
}

/** An inlet onto a board, without a transfer switch. */
function layInlet(
  laying: Laying,
  given: Given,
  { generator }: CompiledGenerator,
  behind: Port,
  service: Port,
  set: LaidSet | undefined,
): void {
  const from: Path = ['generators', generator.id, 'inletAt'];
  const onto = generator.inletAt === 'service-board' ? service : set?.feeds.get('');
  if (generator.inletAt === undefined || onto === undefined) return;
  const part = laying.part({
    id: `inlet ${generator.id}`,
    kind: 'inlet',
    label: `inlet of ${generator.name}`,
    from,
    generatorId: generator.id,
  });
  const names = buildingNames(given);
  const inPort = laying.port(part, 'in', names);
  const outPort = laying.port(part, 'out', names);
  laying.run(behind, inPort, { use: 'ac', from });
  laying.run(outPort, onto, { use: 'ac', from });
  const shut = closedIn('generator-inlet');
  laying.poles(inPort, outPort, { lines: shut, neutral: shut });
}

/** A generator with its frame bond and device, to the generator ports of its set, a transfer switch, or an inlet. */
export function layGenerator(
  laying: Laying,
  given: Given,
  one: CompiledGenerator,
  at: {
    readonly service: Port;
    readonly set: LaidSet | undefined;
    /** The generator side of its transfer switch. */
    readonly alternate: Port | undefined;
  },
): void {
  const { generator, type } = one;
  const from: Path = ['generators', generator.id];
  const part = laying.part({
    id: `generator ${generator.id}`,
    kind: 'generator',
    label: generator.name,
    from,
    generatorId: generator.id,
    ...(type.known ? { typeName: type.value.name, rating: `${type.value.ratedVa / 1000} kVA` } : {}),
  });
  const supply = laying.port(part, 'supply', namesOf(given, one), {
    takes: takesOf(type.known ? type.value.terminals : undefined, 'output', from),
  });
  const neutral = supply.terminals.find(({ name }) => name === 'N');
  const bond = frameBond(one);
  if (neutral !== undefined && bond !== NEVER)
    laying.bonds.push({
      id: `frame-bond ${generator.id}`,
      partId: part.id,
      label: `the frame bond of ${generator.name}`,
      neutral: neutral.id,
      closedIn: bond,
      from: [...from, 'neutralBond'],
    });
  if (generator.connection === undefined) return;
  const mode = MODE_OF[generator.connection];
  laying.sources.push({
    id: part.id,
    partId: part.id,
    kind: 'generator',
    terminals: supply.terminals.flatMap(({ id, name }) => (name === 'N' || name === 'PE' ? [] : [id])),
    runsIn: [mode],
  });
  const behind = deviceBehind(laying, supply, {
    id: `generator-device ${generator.id}`,
    label: `device of ${generator.name}`,
    role: 'generator-device',
    of: { generatorId: generator.id },
    devices: given.design.devices,
    find: given.find,
    more: { generatorId: generator.id },
  });
  const units = at.set?.units ?? [];
  switch (generator.connection) {
    case 'generator-port':
      for (const unit of units)
        if (unit.generator !== undefined) laying.run(behind, unit.generator, { use: 'ac', from });
      break;
    case 'transfer-switch':
      if (at.alternate !== undefined) laying.run(behind, at.alternate, { use: 'ac', from });
      break;
    case 'inlet':
      layInlet(laying, given, one, behind, at.service, at.set);
      break;
  }
  // An inverter follows what comes in by its generator or grid port; what comes in behind it, it does not see.
  const isFollowed = generator.connection !== 'inlet' || generator.inletAt === 'service-board';
  if (isFollowed && units.length > 0)
    laying.inStep.push({ sources: [part.id, ...units.map((unit) => unit.part.id)], modes: [mode] });
}
