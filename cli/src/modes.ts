import {
  compile,
  type Design,
  energisedPorts,
  modesOf,
  pathToBond,
  SAMPLE_TYPES,
  walkOf,
  wholeNetwork,
} from '@bastion/core';

/** What `bastion modes` prints: for each mode what is live, how many bonds stand on each live neutral, and what is wrong. */
export interface ModesReport {
  readonly format: 1;
  readonly modes: readonly {
    readonly id: string;
    readonly label: string;
    readonly running: readonly string[];
    readonly energised: readonly {
      readonly part: string;
      readonly port: string;
      readonly lines: Readonly<Record<string, readonly string[]>>;
    }[];
    readonly neutrals: readonly {
      readonly boards: readonly string[];
      readonly bonds: readonly string[];
      readonly perhaps: readonly string[];
    }[];
    readonly faults: readonly {
      readonly kind: 'bonds' | 'back-feed' | 'joined-sources';
      readonly certain: boolean;
      readonly what: string;
      readonly path: readonly string[];
    }[];
  }[];
  readonly problems: readonly { readonly path: string; readonly message: string }[];
}

/** Walks a design in every mode; undefined while its supply, and with it the network, is not known. */
export function modesReport(design: Design): ModesReport | undefined {
  const installation = compile(design, SAMPLE_TYPES);
  const walk = walkOf(installation);
  if (!installation.network.known || !walk.known) return undefined;
  const network = installation.network.value;
  const whole = wholeNetwork(installation);
  const labels = new Map(network.parts.map(({ id, label }) => [id, label]));
  const label = (id: string): string => labels.get(id) ?? id;
  const bondLabels = new Map(network.bonds.map((bond) => [bond.id, bond.label]));
  const words = (path: readonly string[]): string[] => path.map(label);
  const ports = new Map(network.ports.map((port) => [port.id, port]));
  return {
    format: 1,
    modes: modesOf(installation).flatMap((mode) => {
      const facts = walk.value.get(mode.id);
      if (facts === undefined) return [];
      return [
        {
          id: mode.id,
          label: mode.label,
          running: facts.running.map(label),
          energised: energisedPorts(network, mode).map(({ portId, partId, lines }) => ({
            part: label(partId),
            port: ports.get(portId)?.label ?? '',
            lines: Object.fromEntries(lines.map(({ name, sources }) => [name, sources.map(label)])),
          })),
          neutrals: facts.neutrals.map(({ boards, bonds, perhaps }) => ({
            boards: boards.map(label),
            bonds: bonds.map((id) => bondLabels.get(id) ?? id),
            perhaps: perhaps.map((id) => bondLabels.get(id) ?? id),
          })),
          faults: [
            ...facts.neutrals
              .filter(({ bonds, perhaps }) => bonds.length !== 1 || perhaps.length > 0)
              .map(({ boards, bonds, perhaps }) => ({
                kind: 'bonds' as const,
                certain: bonds.length > 1 || perhaps.length === 0,
                what: `${bonds.length} neutral–earth bonds on the neutral of ${boards.map(label).join(', ')}`,
                path: words(pathToBond(network, mode, bonds.at(-1) ?? perhaps[0] ?? '', boards[0] ?? '')),
              })),
            ...(facts.backFeed === undefined
              ? []
              : [
                  {
                    kind: 'back-feed' as const,
                    certain: facts.backFeed.missing.length === 0,
                    what: `the grid terminals are live from ${label(facts.backFeed.source)}`,
                    path: words(facts.backFeed.path),
                  },
                ]),
            ...facts.clashes.map(({ sources, path, missing }) => ({
              kind: 'joined-sources' as const,
              certain: missing.length === 0,
              what: `${label(sources[0])} and ${label(sources[1])} are joined and nothing keeps them in step`,
              path: words(path),
            })),
          ],
        },
      ];
    }),
    problems: (whole.known ? whole.value : network).problems.map(({ path, message }) => ({
      path: path.join('/'),
      message,
    })),
  };
}
