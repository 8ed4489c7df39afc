import type { InverterType } from '../../catalogue/inverterType.ts';
import type { EquipmentType } from '../../catalogue/schema.ts';
import { lackingIsolators } from './isolators.ts';
import { chargeKeyOf } from '../../figures/capability/acCharge.ts';
import { largestChargeW } from '../../figures/generator/largestCharge.ts';
import { compile } from '../../installation/compile.ts';
import { withFirstValues, withMarks } from '../../design/firstValues.ts';
import { BOARD_NAMES } from '../../design/boards.ts';
import { SUPPLY_LINES } from '../../design/references.ts';
import type { Design, Generator, Partition, Stack } from '../../design/schema.ts';
import { copyUsedTypes } from '../../design/usedTypes.ts';
import type { Result } from '../../values/problem.ts';
import { arrangementsFor, isOnOneLine, lineOfUnit } from './arrangements.ts';
import { bankDevices, bankValues, profileValues } from './firstBank.ts';
import { autotransformerValues, generatorValues } from './firstSources.ts';
import { acLeadValues, settingValues } from './firstStack.ts';
import { type Kit, type NewId, planBank, type SetUpChoice } from './kit.ts';

/** The stack with what was chosen and nothing else. */
function chosenStack(design: Design, choice: SetUpChoice, inverter: InverterType, newId: NewId): Stack {
  const { supply } = design.site;
  const { units, battery } = choice;
  const arrangement = arrangementsFor(inverter, design.site, units)[0];
  const lines = supply === undefined ? [] : SUPPLY_LINES[supply];
  const number = design.stacks.length + 1;
  const stack: Stack = {
    id: newId('s'),
    name: number === 1 ? 'Stack' : `Stack ${number}`,
    inverterTypeId: choice.inverterTypeId,
    units: Array.from({ length: units }, (_, index) => {
      const line = lineOfUnit(arrangement, index, units, lines);
      return { id: newId('u'), ...(line === undefined ? {} : { line }) };
    }),
  };
  if (arrangement !== undefined) stack.arrangement = arrangement;
  if (battery === 'none') stack.bank = 'none';
  else if (battery !== undefined)
    stack.bank = {
      batteryTypeId: battery.typeId,
      modules: Array.from({ length: battery.modules }, () => ({ id: newId('m') })),
    };
  return stack;
}

/** The boards of a partial backup, each added only where there is none of its kind. */
function boards(design: Design, stack: Stack, inverter: InverterType, newId: NewId): Partition[] {
  const partitions = design.partitions.map((one) =>
    one.kind === 'backup' && one.stackId === undefined ? { ...one, stackId: stack.id } : one,
  );
  if (!partitions.some(({ kind }) => kind === 'grid'))
    partitions.push({ id: newId('p'), name: BOARD_NAMES.grid, kind: 'grid' });
  // What has no backup outlet carries nothing in island: it gets no board that would promise otherwise.
  const feeds = inverter.backupOutlet !== 'none';
  if (feeds && !partitions.some(({ kind, stackId }) => kind === 'backup' && stackId === stack.id)) {
    const isFirst = !partitions.some(({ kind }) => kind === 'backup');
    const output = inverter.outputs?.[0]?.id;
    partitions.push({
      id: newId('p'),
      name: isFirst ? BOARD_NAMES.backup : `${BOARD_NAMES.backup}, ${stack.name}`,
      kind: 'backup',
      stackId: stack.id,
      ...(output === undefined ? {} : { outputId: output }),
    });
  }
  return partitions;
}

function chosenGenerator(
  { generator }: SetUpChoice,
  before: number,
  stack: Stack,
  newId: NewId,
): Generator | undefined {
  if (generator === undefined) return undefined;
  const { typeId, connection } = generator;
  return {
    id: newId('g'),
    name: before === 0 ? 'Generator' : `Generator ${before + 1}`,
    typeId,
    stackId: stack.id,
    ...(connection === undefined ? {} : { connection }),
  };
}

/** The boards, and the circuits on them that had none. */
function withBoards(
  design: Design,
  { circuitsTo }: SetUpChoice,
  stack: Stack,
  inverter: InverterType,
  newId: NewId,
): Design {
  const partitions = boards(design, stack, inverter, newId);
  const placed = new Set(partitions.map(({ id }) => id));
  const idOf = (wanted: Partition['kind']) => partitions.find(({ kind }) => kind === wanted)?.id;
  const target = circuitsTo === 'nowhere' ? undefined : idOf(circuitsTo);
  if (target === undefined) return { ...design, partitions };
  const dark = idOf('grid') ?? target;
  return {
    ...design,
    partitions,
    circuits: design.circuits.map((circuit) =>
      placed.has(circuit.partitionId ?? '')
        ? circuit
        : { ...circuit, partitionId: isMadeBy(stack, circuit) ? target : dark },
    ),
  };
}

/** Whether a set makes the lines of a circuit; one whose lines nobody has said may be on them. A set on one line of several makes no other. */
function isMadeBy({ arrangement, units }: Stack, { lines }: Design['circuits'][number]): boolean {
  const made = units.flatMap(({ line }) => line ?? []);
  return (
    !isOnOneLine(arrangement) ||
    made.length === 0 ||
    lines === undefined ||
    lines.every((line) => made.includes(line))
  );
}

/** One earthing point that joins everything there is, marked as planned. */
function withEarthPoint(design: Design, newId: NewId): Design {
  if (design.earthPoints.length > 0) return design;
  const id = newId('e');
  const joins: Design['earthPoints'][number]['joins'] = ['chassis', 'backed-up-earth', 'grid-earth'];
  if (design.generators.length > 0) joins.push('generator-frame');
  return withMarks({ ...design, earthPoints: [{ id, name: 'main earthing bar', joins }] }, [
    ['earthPoints', id, 'joins'],
  ]);
}

/** A device at every source that has none yet, marked as planned. */
function withIsolators(design: Design, newId: NewId): Design {
  const devices = lackingIsolators(design, newId);
  return withFirstValues(
    { ...design, devices: [...design.devices, ...devices] },
    devices.map(({ id }) => ({ path: ['devices', id, 'fitted'], value: 'yes' })),
  );
}

/** Lowers the planned charging power to what the generator leaves beside the load that is known by now. */
function chargeWithin(design: Design, stackId: string, catalogue: readonly EquipmentType[]): Design {
  const installation = compile(design, catalogue);
  const compiled = installation.stacks.find(({ stack }) => stack.id === stackId);
  const set = installation.generators.find(({ generator }) => generator.stackId === stackId);
  if (compiled === undefined || set === undefined) return design;
  const key = chargeKeyOf(set.generator.connection ?? '');
  const found = largestChargeW(set, compiled, installation);
  const planned = compiled.stack[key];
  if ('refused' in found || planned === undefined || found.perUnitW >= planned) return design;
  return {
    ...design,
    stacks: design.stacks.map((one) => (one.id === stackId ? { ...one, [key]: found.perUnitW } : one)),
  };
}

function refused(message: string): Result<never> {
  return { ok: false, problems: [{ path: [], message }] };
}

/**
 * Boards, inverters, battery and generator of a job in one step. What was chosen is stated; leads, plugs, settings, battery devices
 * and the earthing point are planned from the types and marked as first values until somebody looks at them.
 */
export function setUp(
  design: Design,
  choice: SetUpChoice,
  catalogue: readonly EquipmentType[],
  newId: NewId,
): Result<Design> {
  const types = new Map([...catalogue, ...design.types].map((type) => [type.id, type]));
  const inverter = types.get(choice.inverterTypeId);
  if (inverter?.kind !== 'inverter') return refused('choose an inverter type');
  if (!Number.isInteger(choice.units) || choice.units < 1 || choice.units > 64)
    return refused('a stack has 1 to 64 units');
  const battery = typeof choice.battery === 'object' ? types.get(choice.battery.typeId) : undefined;
  if (typeof choice.battery === 'object') {
    if (battery?.kind !== 'battery') return refused('choose a battery type');
    if (
      !Number.isInteger(choice.battery.modules) ||
      choice.battery.modules < 1 ||
      choice.battery.modules > 512
    )
      return refused('a bank has 1 to 512 modules');
  }
  const all = [...types.values()];
  const stack = chosenStack(design, choice, inverter, newId);
  const generator = chosenGenerator(choice, design.generators.length, stack, newId);
  const kit: Kit = {
    site: design.site,
    catalogue: all,
    inverter,
    stack,
    bank:
      battery?.kind === 'battery' && typeof choice.battery === 'object'
        ? planBank(
            inverter,
            battery,
            { modules: choice.battery.modules, units: choice.units },
            all,
            design.site,
          )
        : undefined,
    generator: choice.generator,
  };
  const { devices, values } = bankDevices(kit, newId);
  const stated = withBoards(design, choice, stack, inverter, newId);
  const chosen: Design = {
    ...stated,
    stacks: [...design.stacks, stack],
    generators: generator === undefined ? design.generators : [...design.generators, generator],
    devices: [...design.devices, ...devices],
  };
  const planned = withFirstValues(chosen, [
    ...settingValues(kit),
    ...profileValues(kit),
    ...acLeadValues(kit),
    ...bankValues(kit),
    ...autotransformerValues(kit),
    ...generatorValues(kit, generator, types.get(choice.generator?.typeId ?? '')),
    ...values,
  ]);
  const complete = copyUsedTypes(withIsolators(withEarthPoint(planned, newId), newId), catalogue);
  return {
    ok: true,
    value: generator === undefined ? complete : chargeWithin(complete, stack.id, catalogue),
  };
}
