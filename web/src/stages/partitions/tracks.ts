import {
  type Analysis,
  capabilityWithout,
  type Circuit,
  circuitVa,
  concerns,
  factorFinder,
  type Line,
  magnitude,
  SUPPLY_LINES,
} from '@bastion/core';
import { type Lane, laneKey } from './lanes.ts';

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
  /** What the other lanes of the same stack put on the line, and where it begins. */
  readonly othersVa: number;
  readonly othersFromVa: number;
  readonly segments: readonly Segment[];
  readonly endVa: number;
  /** What the source may give on the line; undefined where that is not known. */
  readonly limitVa: number | undefined;
  /** Load with the largest start; only on lanes that are carried in island. */
  readonly surgeVa: number | undefined;
}

export const linesOf = (analysis: Analysis): readonly Line[] =>
  SUPPLY_LINES[analysis.installation.site.supply ?? 'three-phase'];

const isCarried = (lane: Lane): boolean => lane.kind === 'backup' || lane.kind === 'shed';

/** VA that a circuit puts on each line, by the core's own shares: a load between two of three lines is more than half on each. */
function lineShares(analysis: Analysis): (circuit: Circuit) => readonly number[] {
  const { supply } = analysis.installation;
  if (!supply.known) {
    const lines = linesOf(analysis);
    return (circuit) =>
      lines.map((line) =>
        circuit.lines?.includes(line) === true ? (circuitVa(circuit) ?? 0) / circuit.lines.length : 0,
      );
  }
  const factorsOf = factorFinder(supply.value);
  return (circuit) => {
    if (circuit.lines === undefined) return supply.value.lines.map(() => 0);
    const va = circuitVa(circuit) ?? 0;
    return factorsOf(circuit.lines).map((factor) => va * magnitude(factor));
  };
}

/**
 * Each line is filled from its own end, so that its length is its load and nothing else. Circuits on several lines come first,
 * where they stand at the same place on all of them as far as the lines allow; what other lanes draw comes between.
 */
function segmentsOf(
  circuits: readonly Circuit[],
  lines: readonly Line[],
  othersVa: readonly number[],
  sharesOf: (circuit: Circuit) => readonly number[],
): { line: Line; segments: Segment[]; othersFromVa: number; endVa: number }[] {
  const several = circuits.filter((circuit) => (circuit.lines?.length ?? 0) > 1);
  const single = circuits.filter((circuit) => (circuit.lines?.length ?? 0) === 1);
  return lines.map((line, at) => {
    let endVa = 0;
    const place = (circuit: Circuit): Segment[] => {
      if (circuit.lines?.includes(line) !== true) return [];
      const fromVa = endVa;
      endVa += sharesOf(circuit)[at] ?? 0;
      const spans = circuit.lines.length > 1;
      return [{ circuitId: circuit.id, label: circuit.name, fromVa, toVa: endVa, spans }];
    };
    const first = several.flatMap(place);
    const othersFromVa = endVa;
    endVa += othersVa[at] ?? 0;
    return { line, segments: [...first, ...single.flatMap(place)], othersFromVa, endVa };
  });
}

function limitOf(analysis: Analysis, lane: Lane, at: number): number | undefined {
  const { installation } = analysis;
  if (lane.kind === 'grid') {
    const { serviceRatingA, lineVoltageV } = installation.site;
    return serviceRatingA === undefined || lineVoltageV === undefined
      ? undefined
      : serviceRatingA * lineVoltageV;
  }
  const compiled = installation.stacks.find((one) => one.stack.id === lane.partition?.stackId);
  const found = compiled === undefined ? undefined : capabilityWithout(compiled);
  return found?.known === true ? found.value.perLineVa[at] : undefined;
}

function surgeOf(analysis: Analysis, lane: Lane, line: Line): number | undefined {
  if (!isCarried(lane)) return undefined;
  return analysis.findings.find(
    (finding) =>
      finding.check === 'surge.largest-start' &&
      finding.mode === 'island' &&
      finding.subject.kind === 'line' &&
      concerns(finding.subject, { kind: 'stack', id: lane.partition?.stackId ?? '' }) &&
      concerns(finding.subject, { kind: 'supply-line', id: line }),
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
  const sharesOf = lineShares(analysis);
  const othersVa = lines.map((_, at) =>
    others.reduce(
      (sum, one) => sum + one.circuits.reduce((all, circuit) => all + (sharesOf(circuit)[at] ?? 0), 0),
      0,
    ),
  );
  return segmentsOf(lane.circuits, lines, othersVa, sharesOf).map((one, at) => ({
    ...one,
    othersVa: othersVa[at] ?? 0,
    limitVa: limitOf(analysis, lane, at),
    surgeVa: surgeOf(analysis, lane, one.line),
  }));
}

/** One scale for all lanes, so that a bar keeps its length wherever it is put: VA at the right-hand end. */
export function scaleVa(tracks: readonly Track[]): number {
  const ends = tracks.flatMap((track) => [track.endVa, (track.limitVa ?? 0) / 0.8]);
  return Math.max(1000, ...ends) * 1.02;
}
