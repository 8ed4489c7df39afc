import { type Analysis, type Circuit, type Line, SUPPLY_LINES } from '@bastion/core';
import { circuitVa, type Lane, laneKey } from './lanes.ts';

/** A circuit's stretch on the track of one line. */
export interface Segment {
  readonly circuitId: string;
  readonly label: string;
  readonly fromVa: number;
  readonly toVa: number;
  readonly spans: boolean;
}

/** One line of a lane, drawn to scale. */
export interface Track {
  readonly line: Line;
  /** What the other lanes of the same stack put on the line: it comes first. */
  readonly othersVa: number;
  readonly segments: readonly Segment[];
  readonly endVa: number;
  /** What the source may give on the line; undefined where that is not known. */
  readonly limitVa: number | undefined;
  /** Load with the largest start; only on lanes that are carried in island. */
  readonly surgeVa: number | undefined;
}

export const linesOf = (analysis: Analysis): readonly Line[] =>
  SUPPLY_LINES[analysis.installation.design.site.supply ?? 'three-phase'];

const isCarried = (lane: Lane): boolean => lane.kind === 'backup' || lane.kind === 'shed';

const onLine = (circuit: Circuit, line: Line): number => {
  const count = circuit.lines?.length ?? 0;
  return circuit.lines?.includes(line) === true ? (circuitVa(circuit) ?? 0) / Math.max(1, count) : 0;
};

/** Circuits on several lines come first, each at the same place on all of its lines, so that they are seen to span them. */
function segmentsOf(
  circuits: readonly Circuit[],
  lines: readonly Line[],
  from: readonly number[],
): Map<Line, Segment[]> {
  const ends = [...from];
  const made = new Map<Line, Segment[]>(lines.map((line) => [line, []]));
  const ordered = [...circuits].sort((a, b) => (b.lines?.length ?? 0) - (a.lines?.length ?? 0));
  for (const circuit of ordered) {
    const on = lines.flatMap((line, at) => (circuit.lines?.includes(line) === true ? [at] : []));
    const fromVa = Math.max(0, ...on.map((at) => ends[at] ?? 0));
    for (const at of on) {
      const line = lines[at];
      if (line === undefined) continue;
      const toVa = fromVa + onLine(circuit, line);
      made
        .get(line)
        ?.push({ circuitId: circuit.id, label: circuit.name, fromVa, toVa, spans: on.length > 1 });
      ends[at] = toVa;
    }
  }
  return made;
}

function limitOf(analysis: Analysis, lane: Lane, at: number): number | undefined {
  const { installation } = analysis;
  if (lane.kind === 'grid') {
    const { serviceRatingA, lineVoltageV } = installation.design.site;
    return serviceRatingA === undefined || lineVoltageV === undefined
      ? undefined
      : serviceRatingA * lineVoltageV;
  }
  const compiled = installation.stacks.find((one) => one.stack.id === lane.partition?.stackId);
  const found = compiled?.capabilityWithout(undefined);
  return found?.known === true ? found.value.perLineVa[at] : undefined;
}

function surgeOf(analysis: Analysis, lane: Lane, line: Line): number | undefined {
  if (!isCarried(lane)) return undefined;
  return analysis.findings.find(
    (finding) =>
      finding.check === 'surge.largest-start' &&
      finding.mode === 'island' &&
      finding.subject.id === `${lane.partition?.stackId ?? ''}/${line}`,
  )?.value;
}

/** The tracks of a lane: what other lanes of its stack draw, its own circuits one after the other, and the limit. */
export function tracksOf(analysis: Analysis, lane: Lane, lanes: readonly Lane[]): Track[] {
  const lines = linesOf(analysis);
  const others = isCarried(lane)
    ? lanes.filter(
        (one) =>
          isCarried(one) &&
          laneKey(one) !== laneKey(lane) &&
          one.partition?.stackId === lane.partition?.stackId,
      )
    : [];
  const othersVa = lines.map((line) =>
    others.reduce(
      (sum, one) => sum + one.circuits.reduce((all, circuit) => all + onLine(circuit, line), 0),
      0,
    ),
  );
  const segments = segmentsOf(lane.circuits, lines, othersVa);
  return lines.map((line, at) => {
    const own = segments.get(line) ?? [];
    return {
      line,
      othersVa: othersVa[at] ?? 0,
      segments: own,
      endVa: own.at(-1)?.toVa ?? othersVa[at] ?? 0,
      limitVa: limitOf(analysis, lane, at),
      surgeVa: surgeOf(analysis, lane, line),
    };
  });
}

/** One scale for all lanes, so that a bar keeps its length wherever it is put: VA at the right-hand end. */
export function scaleVa(tracks: readonly Track[]): number {
  const ends = tracks.flatMap((track) => [track.endVa, (track.limitVa ?? 0) / 0.8]);
  return Math.max(1000, ...ends) * 1.02;
}
