import type { Path } from '../../values/problem.ts';
import type { CompiledArray } from '../installation.ts';
import { boardPartId } from './boards.ts';
import type { Given } from './given.ts';
import { type Laying, takesOf } from './laying.ts';
import { deviceBehind } from './lines.ts';
import { buildingNames } from './service.ts';
import { unitPartId, unitTypeOf } from './units.ts';

/** What the PV input of a unit takes, by the type of that unit. */
function inputTakes(
  given: Given,
  { stackId, unitId }: { readonly stackId: string; readonly unitId: string },
) {
  const set = given.stacks.find(({ stack }) => stack.id === stackId);
  const unit = set?.stack.units.find(({ id }) => id === unitId);
  const type = set && unit && unitTypeOf(given, set, unit);
  return type?.known === true
    ? takesOf(type.value.terminals, 'pv', ['types', type.value.id])
    : takesOf(undefined, 'pv', ['stacks', stackId, 'inverterTypeId']);
}

/** An array: its strings by a DC switch to the inputs they are plugged into, or its AC power to the board it stands on. */
export function layArray(laying: Laying, given: Given, { array, moduleType }: CompiledArray): void {
  const from: Path = ['arrays', array.id];
  const [first] = array.places ?? [];
  const part = laying.part({
    id: `array ${array.id}`,
    kind: 'array',
    label: array.name,
    from,
    arrayId: array.id,
    ...(moduleType.known ? { typeName: moduleType.value.name } : {}),
    ...(array.coupling === 'ac' || first === undefined
      ? {}
      : { stackId: first.stackId, unitId: first.unitId }),
    ...(array.ratedAcW === undefined ? {} : { rating: `${array.ratedAcW / 1000} kW` }),
  });
  if (array.coupling === 'ac') {
    const board = laying.ports.find(
      (port) =>
        port.role === 'bus' &&
        array.partitionId !== undefined &&
        port.partId === boardPartId(array.partitionId),
    );
    const out = laying.port(part, 'supply', buildingNames(given));
    if (board !== undefined) laying.run(out, board, { use: 'ac', from });
    return;
  }
  for (const place of array.places ?? []) {
    const unit = laying.parts.find((one) => one.id === unitPartId(place.stackId, place.unitId));
    if (unit === undefined) continue;
    const key = `string ${place.id}`;
    const out = laying.port(part, 'supply', ['DC+', 'DC−'], { key });
    const input = laying.port(unit, 'pv', ['DC+', 'DC−'], {
      key: `pv ${place.input} ${array.id} ${place.id}`,
      label: `PV input ${place.input}`,
      takes: inputTakes(given, place),
    });
    const behind = deviceBehind(laying, out, {
      id: `dc-switch ${array.id} ${place.id}`,
      label: `DC switch of ${array.name}`,
      role: 'dc-switch',
      of: { arrayId: array.id },
      devices: given.design.devices,
      find: given.find,
      more: { stackId: place.stackId, unitId: place.unitId, arrayId: array.id },
    });
    laying.run(behind, input, { use: 'pv', from: [...from, 'places', place.id] });
  }
}
