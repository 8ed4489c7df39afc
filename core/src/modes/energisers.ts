import type { Installation } from '../installation/installation.ts';
import { type Known, mapKnown } from '../values/known.ts';
import { remember } from '../values/remember.ts';
import { modesOf } from './modes.ts';
import { indexed, netsWith } from './nets.ts';
import { positionOf } from './walk.ts';

/**
 * What can bring voltage onto the terminals of each port in any mode, by port: the part ids of those sources. A contact whose position
 * is not known counts as closed, for who works there must reckon with it.
 */
export const energisers = remember(
  (installation: Installation): Known<ReadonlyMap<string, readonly string[]>> =>
    mapKnown(installation.network, (network) => {
      const { numberOf } = indexed(network);
      const at = (terminal: string): number => numberOf.get(terminal) ?? -1;
      const found = new Map<string, Set<string>>();
      for (const mode of modesOf(installation)) {
        const nets = netsWith(network, (contact) => positionOf(contact, mode) !== 'open');
        const live = new Map<number, Set<string>>();
        for (const source of network.sources) {
          if (!source.runsIn.includes(mode.kind)) continue;
          for (const terminal of source.terminals) {
            const net = nets.find(at(terminal));
            const sources = live.get(net) ?? new Set();
            live.set(net, sources.add(source.partId));
          }
        }
        for (const { id, terminals } of network.ports)
          for (const terminal of terminals)
            for (const partId of live.get(nets.find(at(terminal.id))) ?? [])
              found.set(id, (found.get(id) ?? new Set()).add(partId));
      }
      return new Map([...found].map(([id, sources]) => [id, [...sources]]));
    }),
);
