import type { Design, Device } from '../../design/schema.ts';
import type { NewId } from './kit.ts';

type Role = Device['role'];

/**
 * The devices that a job lacks to cut each of its sources off by itself: an isolator of the grid for each set, a main for each board
 * behind one, a device for each generator and a DC switch for each array on inverters. A place where something is listed already,
 * also that nothing is there, is left as it is.
 */
export function lackingIsolators(design: Design, newId: NewId): readonly Device[] {
  const listed = (roles: readonly Role[], of: Partial<Device>): boolean =>
    design.devices.some(
      (one) =>
        roles.includes(one.role) &&
        (of.stackId === undefined || one.stackId === of.stackId) &&
        (of.partitionId === undefined || one.partitionId === of.partitionId) &&
        (of.generatorId === undefined || one.generatorId === of.generatorId) &&
        (of.arrayId === undefined || one.arrayId === of.arrayId),
    );
  const lacking = (roles: readonly [Role, ...Role[]], of: Partial<Device>): Device[] =>
    listed(roles, of) ? [] : [{ id: newId('d'), role: roles[0], ...of }];
  const hasGrid = design.site.grid !== 'none';
  return [
    ...design.stacks.flatMap(({ id: stackId }) => [
      ...(hasGrid ? lacking(['grid-isolator', 'unit-grid'], { stackId }) : []),
      ...(listed(['unit-output'], { stackId })
        ? []
        : design.partitions
            .filter((one) => one.stackId === stackId && one.kind !== 'grid')
            .flatMap(({ id: partitionId }) => lacking(['board-main'], { partitionId }))),
    ]),
    ...design.generators.flatMap(({ id: generatorId }) => lacking(['generator-device'], { generatorId })),
    ...design.arrays
      .filter(({ coupling, places }) => coupling === 'dc' && (places ?? []).length > 0)
      .flatMap(({ id: arrayId }) => lacking(['dc-switch'], { arrayId })),
  ];
}
