import type { GeneratorType } from '../../catalogue/sourceTypes.ts';
import { chargeKeyOf } from '../../figures/capability/acCharge.ts';
import { largestChargeW } from '../../figures/generator/largestCharge.ts';
import type { Design } from '../../design/schema.ts';
import { lessCharging } from './settings.ts';
import { type Candidate, inStack, once, type Trouble, typesAtHand, withUnbacked } from './candidate.ts';

const FEWER_MODULES = 4;

/** The charging that leaves a generator within its limits. */
export function generatorCharging(trouble: Trouble): Candidate[] {
  const { analysis, cause } = trouble;
  const { installation } = analysis;
  const id =
    cause.worst.subject.about?.find(({ kind }) => kind === 'generator')?.id ?? cause.worst.subject.id;
  const set = installation.generators.find(({ generator }) => generator.id === id);
  const compiled = installation.stacks.find(({ stack }) => stack.id === set?.generator.stackId);
  if (set === undefined || compiled === undefined) return [];
  const found = largestChargeW(set, compiled, installation);
  const key = chargeKeyOf(set.generator.connection ?? '');
  if ('refused' in found) return lessCharging({ ...trouble, compiled }, key);
  return [
    once(
      'charger',
      `Charge with ${found.perUnitW} W a unit from ${set.generator.name}`,
      inStack(compiled.stack.id, (one) => ({ ...one, [key]: found.perUnitW })),
    ),
  ];
}

/** A larger set of the same lines from the catalogue. */
export const otherGenerators = (trouble: Trouble): Candidate[] =>
  generatorsOf(trouble, (type, now) => type.lines === now.lines);

/** A set that reaches every line of the building. */
export const generatorsOfAllLines = (trouble: Trouble): Candidate[] => {
  const { supply } = trouble.analysis.installation;
  return supply.known ? generatorsOf(trouble, ({ lines }) => lines === supply.value.lines.length) : [];
};

function generatorsOf(
  trouble: Trouble,
  isWanted: (type: GeneratorType, now: GeneratorType) => boolean,
): Candidate[] {
  const { analysis, cause } = trouble;
  const id =
    cause.worst.subject.about?.find(({ kind }) => kind === 'generator')?.id ?? cause.worst.subject.id;
  const set = analysis.installation.generators.find(({ generator }) => generator.id === id);
  if (set?.type.known !== true) return [];
  const { value: now } = set.type;
  return typesAtHand(trouble)
    .flatMap((type) =>
      type.kind === 'generator' && type.id !== now.id && isWanted(type, now) && type.outputV === now.outputV
        ? [type]
        : [],
    )
    .sort((a, b) => a.ratedVa - b.ratedVa)
    .map((type) =>
      once(`generator-${type.id}`, `Another generator: ${type.name}`, (design) => ({
        ...design,
        generators: design.generators.map((one) => (one.id === id ? { ...one, typeId: type.id } : one)),
      })),
    );
}

/** Another transfer device of the lines of the site that carries as much: its controls may be fed in another way. */
export function otherTransferDevices(trouble: Trouble): Candidate[] {
  const { compiled } = trouble;
  const now = compiled?.transferDevice.known === true ? compiled.transferDevice.value : 'none';
  if (compiled === undefined || now === 'none') return [];
  const { stack, supply } = compiled;
  const lines = supply.known ? supply.value.lines.length : now.lines;
  return typesAtHand(trouble)
    .flatMap((type) =>
      type.kind === 'transfer-device' &&
      type.id !== now.id &&
      type.lines === lines &&
      type.ratedA >= now.ratedA
        ? [type]
        : [],
    )
    .sort((a, b) => a.ratedA - b.ratedA)
    .map((type) =>
      once(
        `transfer-${type.id}`,
        `Another transfer device: ${type.name}`,
        inStack(stack.id, (one) => ({ ...one, transferDeviceTypeId: type.id })),
      ),
    );
}

/** A set on the generator port of a type that has none goes ahead of the grid port, through a changeover of the lines of the site. */
export function aheadOfGridPort(trouble: Trouble): Candidate[] {
  const { compiled, analysis } = trouble;
  const type = compiled?.type.known === true ? compiled.type.value : undefined;
  if (compiled === undefined || type?.generatorPortA !== 'none' || !compiled.supply.known) return [];
  const { lines } = compiled.supply.value;
  const isOn = ({ generator }: { readonly generator: Design['generators'][number] }): boolean =>
    generator.connection === 'generator-port' && generator.stackId === compiled.stack.id;
  const ids = new Set(analysis.installation.generators.filter(isOn).map(({ generator }) => generator.id));
  return typesAtHand(trouble)
    .flatMap((device) => (device.kind === 'transfer-device' && device.lines === lines.length ? [device] : []))
    .sort((a, b) => a.ratedA - b.ratedA)
    .map((device) =>
      once(
        `ahead-${device.id}`,
        `Connect the generator ahead of the grid port, by a transfer switch: ${device.name}`,
        (design) => ({
          ...design,
          generators: design.generators.map((one) =>
            ids.has(one.id)
              ? { ...one, connection: 'transfer-switch', transferDeviceTypeId: device.id }
              : one,
          ),
        }),
      ),
    );
}

/** Fewer PV modules in each string of the array. */
export function shorterStrings({ design, cause }: Trouble): Candidate[] {
  const ids = [cause.worst.subject.id, ...(cause.worst.subject.about ?? []).map(({ id }) => id)];
  const array = design.arrays.find(({ id }) => ids.includes(id));
  const now = array?.modulesPerString;
  if (array === undefined || now === undefined) return [];
  return [
    {
      id: 'shorter-strings',
      title: (step) => `${array.name}: ${now - step} modules in each string`,
      most: Math.min(FEWER_MODULES, now - 1),
      make: (draft, step) => ({
        ...draft,
        arrays: draft.arrays.map((one) =>
          one.id === array.id ? { ...one, modulesPerString: now - step } : one,
        ),
      }),
    },
  ];
}

/** AC-coupled arrays on the boards of a set go to the grid side, where an island does not have to take their power. */
export function pvOntoGrid({ design, compiled }: Trouble): Candidate[] {
  if (compiled === undefined || design.site.grid === 'none') return [];
  const fed = new Set(compiled.partitions.map(({ id }) => id));
  return design.arrays
    .filter(({ coupling, partitionId }) => coupling === 'ac' && fed.has(partitionId ?? ''))
    .map((array) =>
      once(`pv-${array.id}`, `Connect ${array.name} on the grid side`, (draft) => {
        const { design: made, id } = withUnbacked(draft, compiled.stack.id);
        return {
          ...made,
          arrays: made.arrays.map((one) => (one.id === array.id ? { ...one, partitionId: id } : one)),
        };
      }),
    );
}
