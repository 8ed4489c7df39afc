import { field, known, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { Conductor as Lead } from '../facts.ts';
import type { Port, TerminalName } from '../network.ts';
import type { Given } from './given.ts';
import { type Laying, takesOf } from './laying.ts';
import { figuresOf } from '../deviceFigures.ts';
import { belongsTo } from '../belongs.ts';
import { deviceBehind } from './lines.ts';
import type { LaidSet } from './outputs.ts';

const DC: readonly TerminalName[] = ['DC+', 'DC−'];

const leadOf = (lead: Lead | undefined, from: Path) => ({
  from,
  lengthM: field(lead?.lengthM, ...from.map(String), 'lengthM'),
  areaMm2: field(lead?.areaMm2, ...from.map(String), 'areaMm2'),
});

/**
 * The DC side of a set: modules, bars or chain, and the inverters that tap them. Every lead, bar and device carries the id by which
 * the resistances of the bank are known.
 */
export function layBattery(laying: Laying, given: Given, set: LaidSet): void {
  const { compiled } = set;
  const { stack } = compiled;
  const { bank } = stack;
  if (typeof bank !== 'object') return;
  const path: Path = ['stacks', stack.id, 'bank'];
  const { devices } = given.design;
  const bar = laying.part({
    id: `bar ${stack.id}`,
    kind: 'bar',
    label: bank.joining?.startsWith('chain') === true ? 'battery chain' : 'battery bars',
    from: [...path, 'joining'],
    stackId: stack.id,
    ...(compiled.bar.known && compiled.bar.value !== 'none' ? { typeName: compiled.bar.value.name } : {}),
  });
  const barType = compiled.bar.known && compiled.bar.value !== 'none' ? compiled.bar.value : undefined;
  const bus = laying.port(bar, 'bus', DC, {
    takes: takesOf(barType?.terminals, 'bar', [...path, 'barTypeId']),
  });
  bank.modules.forEach((module, index) => {
    const from: Path = [...path, 'modules', module.id];
    const typeId = module.batteryTypeId ?? bank.batteryTypeId;
    const type = typeId === undefined ? undefined : compiled.batteryTypes[typeId];
    const mounted = given.design.place?.mounted.find(
      (one) => one.part === 'module' && one.stackId === stack.id && one.partId === module.id,
    );
    const part = laying.part({
      id: `module ${stack.id}/${module.id}`,
      kind: 'module',
      label: `module ${index + 1}`,
      from,
      stackId: stack.id,
      moduleId: module.id,
      fitted: known(module.fitted === 'taken-out' ? 'none' : 'yes'),
      ...(type === undefined ? {} : { typeName: type.name, rating: `${type.capacityAh} Ah` }),
      ...(mounted === undefined ? {} : { mountedId: mounted.id }),
    });
    // A module that is taken out leaves its place empty: nothing is joined to it.
    if (module.fitted === 'taken-out') return;
    const out = laying.port(part, 'battery', DC, { takes: takesOf(type?.terminals, 'battery', from) });
    const cable = leadOf(
      module.lead ?? bank.lead,
      module.lead === undefined ? [...path, 'lead'] : [...from, 'lead'],
    );
    const of = { stackId: stack.id, moduleId: module.id };
    if (devices.some((one) => belongsTo(one, 'battery-module', of))) {
      const behind = deviceBehind(laying, out, {
        id: `battery-module ${stack.id}/${module.id}`,
        label: `device of module ${index + 1}`,
        role: 'battery-module',
        of,
        devices,
        find: given.find,
        cable,
        more: { stackId: stack.id, moduleId: module.id },
      });
      laying.run(behind, bus, { use: 'battery', ...cable });
    } else laying.run(out, bus, { use: 'battery', ...cable });
  });
  for (const { unit, part } of set.units) {
    const type = compiled.type.known ? compiled.type.value : undefined;
    const battery: Port = laying.port(part, 'battery', DC, {
      label: 'battery port',
      takes: takesOf(type?.terminals, 'battery', type === undefined ? part.from : ['types', type.id]),
    });
    const from: Path =
      unit.batteryLead === undefined
        ? [...path, 'inverterLead']
        : ['stacks', stack.id, 'units', unit.id, 'batteryLead'];
    const cable = leadOf(unit.batteryLead ?? bank.inverterLead, from);
    const listed = devices.some((one) =>
      belongsTo(one, 'battery-unit', { stackId: stack.id, unitId: unit.id }),
    );
    const behind = deviceBehind(laying, bus, {
      id: `battery-unit ${stack.id}/${unit.id}`,
      label: `battery device of ${part.label}`,
      role: 'battery-unit',
      of: { stackId: stack.id, unitId: unit.id },
      devices,
      find: given.find,
      cable,
      more: {
        stackId: stack.id,
        unitId: unit.id,
        // The bank may state one device for all inverters; a listed one stands for itself.
        ...(listed
          ? {}
          : {
              from: [...path, 'breakerA'],
              ratedA: compiled.breakerA,
              fitted: compiled.breakerA.known ? known('yes' as const) : unknownAt([...path, 'breakerA']),
              ...(compiled.breaker.known ? { typeName: compiled.breaker.value.name } : {}),
              ...figuresOf(compiled.breaker),
            }),
      },
    });
    laying.run(behind, battery, { use: 'battery', ...cable });
  }
}
