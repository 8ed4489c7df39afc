import type { Installation } from '../../installation/installation.ts';
import type { FedAlone, Part, PortRole } from '../../installation/network.ts';
import { all, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';
import type { DefaultKey } from '../../codes/defaults.ts';
import {
  arrayFlow,
  autotransformerFlow,
  boardFlow,
  circuitFlow,
  type Flow,
  generatorFlow,
  generatorPortFlow,
  fedFlow,
  gridPortFlow,
  outputFlow,
  serviceFlow,
  setGridFlow,
  setLoadFlow,
} from './acCarried.ts';
import type { CableLine } from './cableLine.ts';
import { type Carried, systemOf } from './carried.ts';
import { bankLeadFlow, branchFlow, type DcFlow, stringFlow, unitBatteryFlow } from './dcCarried.ts';

interface Reached {
  readonly part: Part;
  readonly role: PortRole | undefined;
}

const partsById = remember(
  (installation: Installation): ReadonlyMap<string, Part> =>
    new Map(
      installation.network.known ? installation.network.value.parts.map((part) => [part.id, part]) : [],
    ),
);

function reachedBy(installation: Installation, { ends }: CableLine): readonly Reached[] {
  const parts = partsById(installation);
  return ends.flatMap(({ partId, port }) => {
    const part = parts.get(partId);
    return part === undefined ? [] : [{ part, role: port?.role }];
  });
}

const stackOf = ({ stacks }: Installation, id: string | undefined) =>
  stacks.find(({ stack }) => stack.id === id);

/** What an inverter's port carries. */
function unitFlow(
  installation: Installation,
  { part, role }: Reached,
  others: readonly Reached[],
): Known<Flow> | undefined {
  const compiled = stackOf(installation, part.stackId);
  const unit = compiled?.stack.units.find(({ id }) => id === part.unitId);
  if (compiled === undefined || unit === undefined) return undefined;
  switch (role) {
    case 'grid':
      return gridPortFlow(installation, compiled, unit);
    case 'backup':
      return outputFlow(installation, compiled, unit);
    case 'generator': {
      const id = others.find(({ part: other }) => other.generatorId !== undefined)?.part.generatorId;
      const generator = installation.generators.find((one) => one.generator.id === id);
      return generator && generatorPortFlow(installation, compiled, generator);
    }
    default:
      return undefined;
  }
}

/** What stands at the end of a small cable of its own. */
const fedAlone = ({ ends }: CableLine): FedAlone | undefined =>
  ends.find(({ port }) => port?.fed !== undefined)?.port?.fed;

/** What goes through everything that is not at an inverter: the first end that tells it. */
function otherFlow(installation: Installation, reached: readonly Reached[]): Known<Flow> | undefined {
  const of = (is: (one: Reached) => boolean): Part | undefined => reached.find(is)?.part;
  if (of(({ part }) => part.kind === 'grid')) return serviceFlow(installation);
  const array = of(({ part }) => part.kind === 'array');
  if (array?.arrayId !== undefined) return arrayFlow(installation, array.arrayId);
  const board = of(({ part }) => part.partitionId !== undefined);
  const partition = installation.partitions.find(({ id }) => id === board?.partitionId);
  if (partition !== undefined) return boardFlow(installation, partition);
  const generatorId = of(
    ({ part, role }) => part.generatorId !== undefined && role !== 'normal' && role !== 'common',
  )?.generatorId;
  const generator = installation.generators.find((one) => one.generator.id === generatorId);
  if (generator !== undefined) return generatorFlow(installation, generator);
  const transformer = of(({ part }) => part.kind === 'autotransformer');
  const transformed = stackOf(installation, transformer?.stackId);
  if (transformed !== undefined) return autotransformerFlow(transformed);
  const grid = of(
    ({ part, role }) =>
      part.role === 'grid-isolator' || (part.generatorId !== undefined && role === 'normal'),
  );
  const stackId = of(({ part }) => part.stackId !== undefined)?.stackId ?? setOfSwitch(installation, reached);
  const compiled = stackOf(installation, stackId);
  if (compiled === undefined) return undefined;
  return grid === undefined ? setLoadFlow(installation, compiled) : setGridFlow(installation, compiled);
}

/** The set behind the transfer switch of a generator. */
const setOfSwitch = ({ generators }: Installation, reached: readonly Reached[]): string | undefined =>
  generators.find(({ generator }) => reached.some(({ part }) => part.generatorId === generator.id))?.generator
    .stackId;

function acFlow(installation: Installation, line: CableLine): Known<Flow> | undefined {
  if (line.circuit !== undefined) return circuitFlow(installation, line.circuit);
  const alone = fedAlone(line);
  if (alone !== undefined) return fedFlow(installation, alone);
  const reached = reachedBy(installation, line);
  const unit = reached.find(({ part }) => part.kind === 'inverter');
  return (unit && unitFlow(installation, unit, reached)) ?? otherFlow(installation, reached);
}

function dcFlow(installation: Installation, line: CableLine): Known<DcFlow> | undefined {
  if (line.branch !== undefined) {
    const compiled = stackOf(installation, line.branch.stackId);
    return compiled && branchFlow(installation, compiled, line.branch.id);
  }
  const reached = reachedBy(installation, line);
  if (line.use === 'pv') {
    const arrayId = reached.find(({ part }) => part.kind === 'array')?.part.arrayId;
    return arrayId === undefined ? undefined : stringFlow(installation, arrayId, String(line.from.at(-1)));
  }
  const unit = reached.find(({ part }) => part.kind === 'inverter')?.part;
  const compiled = stackOf(
    installation,
    reached.find(({ part }) => part.stackId !== undefined)?.part.stackId,
  );
  if (compiled === undefined) return undefined;
  const own = compiled.stack.units.find(({ id }) => id === unit?.unitId);
  return own === undefined ? bankLeadFlow(compiled) : unitBatteryFlow(installation, compiled, own);
}

/** The planning value of what a cable may lose. */
function dropKeyOf(line: CableLine): DefaultKey {
  const { use, circuit, cable } = line;
  if (fedAlone(line) !== undefined) return 'dropOther';
  if (use === 'pv') return 'dropPv';
  if (use === 'battery') return 'dropBattery';
  if (circuit === undefined) return 'dropMain';
  return cable?.serves === 'lighting' ? 'dropLighting' : 'dropOther';
}

/** The two cores from an output of an inverter to the controls of a transfer device, at a voltage of their own. */
function ofControls(
  installation: Installation,
  line: CableLine,
  dropKey: DefaultKey,
): Known<Carried> | undefined {
  const alone = fedAlone(line);
  return (
    alone &&
    mapKnown(fedFlow(installation, alone), (flow): Carried => ({
      ...flow,
      system: line.names.includes('DC+') ? 'dc' : 'one-line',
      loadedConductors: 2,
      start: undefined,
      dropKey,
      isBattery: false,
    }))
  );
}

/** What a cable has to carry; undefined for one that carries nothing in service (an earth). */
export function carriedBy(installation: Installation, line: CableLine): Known<Carried> | undefined {
  if (line.use === 'earth') return undefined;
  const dropKey = dropKeyOf(line);
  if (line.use === 'battery' || line.use === 'pv') {
    const flow = dcFlow(installation, line);
    return (
      flow &&
      mapKnown(flow, (dc): Carried => ({
        ...dc,
        system: 'dc',
        loadedConductors: 2,
        start: undefined,
        dropKey,
        isBattery: line.use === 'battery',
      }))
    );
  }
  if (line.use === 'control') return ofControls(installation, line, dropKey);
  const flow = acFlow(installation, line) ?? unknownAt(['stacks']);
  const given = all({ flow, system: systemOf(installation, line.names) });
  return given.known
    ? known({
        ...given.value.system,
        currentA: given.value.flow.currentA,
        powerFactor: given.value.flow.powerFactor,
        start: given.value.flow.start,
        because: given.value.flow.because,
        dropKey,
        isBattery: false,
      })
    : given;
}
