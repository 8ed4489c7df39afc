import type { Diagram } from './graph.ts';

/** The graph as a layout engine of the layered kind takes it. */
export interface LayoutQuestion {
  readonly id: 'root';
  readonly layoutOptions: Record<string, string>;
  readonly children: {
    id: string;
    width: number;
    height: number;
    layoutOptions: Record<string, string>;
    ports: { id: string; x: number; y: number; width: number; height: number }[];
  }[];
  readonly edges: { id: string; sources: string[]; targets: string[] }[];
}

/** What such an engine answers, as far as it is read. */
export interface LayoutAnswer {
  readonly width?: number | undefined;
  readonly height?: number | undefined;
  readonly children?:
    | readonly { readonly id: string; readonly x?: number | undefined; readonly y?: number | undefined }[]
    | undefined;
  readonly edges?:
    | readonly {
        readonly id: string;
        readonly sections?:
          | readonly {
              readonly startPoint: { readonly x: number; readonly y: number };
              readonly endPoint: { readonly x: number; readonly y: number };
              readonly bendPoints?: readonly { readonly x: number; readonly y: number }[] | undefined;
            }[]
          | undefined;
      }[]
    | undefined;
}

/** Where everything of a drawing stands, px from its upper left corner. Plain data. */
export interface Layout {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly nodes: Readonly<Record<string, { readonly x: number; readonly y: number }>>;
  readonly edges: Readonly<Record<string, readonly (readonly [number, number])[]>>;
}

/** How far the contacts of a changeover stand from its axis. */
export const CONTACT_PX = 14;

/**
 * The question to the layout engine. Lines enter a symbol at its top and leave it at its bottom, on its axis; the order of the
 * network is kept, so that what did not change stays where it was.
 */
export function layoutQuestion({ nodes, edges }: Diagram): LayoutQuestion {
  return {
    id: 'root',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'DOWN',
      'elk.edgeRouting': 'ORTHOGONAL',
      'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
      'elk.layered.crossingMinimization.forceNodeModelOrder': 'true',
      'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
      'elk.layered.spacing.nodeNodeBetweenLayers': '26',
      'elk.spacing.nodeNode': '18',
      'elk.spacing.edgeEdge': '9',
      'elk.layered.spacing.edgeNodeBetweenLayers': '12',
      'elk.randomSeed': '1',
    },
    children: nodes.map(({ id, symbol, widthPx, heightPx, axisPx }) => ({
      id,
      width: widthPx,
      height: heightPx,
      layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
      ports: [
        { id: `${id} in`, x: axisPx, y: 0, width: 0, height: 0 },
        { id: `${id} out`, x: axisPx, y: heightPx, width: 0, height: 0 },
        ...(symbol === 'changeover'
          ? [
              { id: `${id} normal`, x: axisPx - CONTACT_PX, y: 0, width: 0, height: 0 },
              { id: `${id} alternate`, x: axisPx + CONTACT_PX, y: 0, width: 0, height: 0 },
            ]
          : []),
      ],
    })),
    edges: edges.map(({ id, from, to, side }) => ({
      id,
      sources: [`${from} out`],
      targets: [`${to} ${side === 'axis' ? 'in' : side}`],
    })),
  };
}

/** Reads the answer; what the engine left out stands at nought. */
export function readLayout(answer: LayoutAnswer): Layout {
  return {
    widthPx: answer.width ?? 0,
    heightPx: answer.height ?? 0,
    nodes: Object.fromEntries((answer.children ?? []).map(({ id, x = 0, y = 0 }) => [id, { x, y }])),
    edges: Object.fromEntries(
      (answer.edges ?? []).map(({ id, sections = [] }) => [
        id,
        sections.flatMap(({ startPoint, bendPoints = [], endPoint }) =>
          [startPoint, ...bendPoints, endPoint].map(({ x, y }): [number, number] => [x, y]),
        ),
      ]),
    ),
  };
}
