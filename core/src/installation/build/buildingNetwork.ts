import type { Known } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { CompiledController } from '../installation.ts';
import { ROUTER } from '../network.ts';
import type { Given } from './given.ts';
import type { Laying } from './laying.ts';
import { endOf } from './links.ts';
import { unitPartId, unitTypeOf } from './units.ts';

/** A device that somebody has joined to the network of the building, or left off it on purpose. */
interface Joined {
  readonly partId: string;
  readonly way: 'cable' | 'radio' | 'none';
  readonly socket: string;
  readonly from: Path;
}

const socketOf = (type: Known<{ readonly networkPort?: string | undefined }>): string =>
  (type.known ? type.value.networkPort : undefined) ?? 'network';

/** Links from inverters and controllers to the router of the building, by cable or by radio. */
export function layBuildingNetwork(
  laying: Laying,
  given: Given,
  controllers: readonly CompiledController[],
): void {
  const joined = [
    ...given.stacks.flatMap((compiled) =>
      compiled.stack.units.flatMap((unit): Joined[] => {
        const { id, network: way } = unit;
        const stackId = compiled.stack.id;
        return way === undefined
          ? []
          : [
              {
                partId: unitPartId(stackId, id),
                way,
                socket: socketOf(unitTypeOf(given, compiled, unit)),
                from: ['stacks', stackId, 'units', id, 'network'],
              },
            ];
      }),
    ),
    ...controllers.flatMap(({ controller: { id, network: way }, type }): Joined[] =>
      way === undefined
        ? []
        : [
            {
              partId: `controller ${id}`,
              way,
              socket: socketOf(type),
              from: ['controllers', id, 'network'],
            },
          ],
    ),
  ].filter(({ way }) => way !== 'none');
  const [first] = joined;
  if (first === undefined) return;
  laying.part({ id: ROUTER, kind: 'router', label: 'router of the building', from: first.from });
  for (const { partId, way, socket, from } of joined)
    laying.links.push({
      id: `network ${partId}`,
      kind: 'network',
      a: way === 'radio' ? { partId, socket: 'radio' } : endOf(partId, socket, undefined),
      b: { partId: ROUTER, socket: way === 'radio' ? 'radio' : 'outlet' },
      from,
      ...(way === 'radio' ? { by: 'radio' as const } : {}),
    });
}
