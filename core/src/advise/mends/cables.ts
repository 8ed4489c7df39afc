import { nextDeviceA } from '../../codes/deviceFor.ts';
import { tabulatedSizes } from '../../codes/ampacity.ts';
import { leadSizeWords } from '../../codes/leadSizes.ts';
import { applyEdits } from '../../design/applyEdits.ts';
import type { Edit } from '../../design/edits.ts';
import type { Design } from '../../design/schema.ts';
import type { CableLine } from '../../figures/wiring/cableLine.ts';
import { cableLines } from '../../figures/wiring/cableLines.ts';
import { leastEarthing } from '../../sizing/earthLines.ts';
import { sizeLine, type SizedLine } from '../../sizing/sizeLine.ts';
import { smallestSize } from '../../sizing/smallestSize.ts';
import { type Candidate, once, type Trouble } from './candidate.ts';

/** The cables that a cause is about, as a whole or in a stretch between two of their parts, sized. */
function sizedLines({ cause, analysis }: Trouble): SizedLine[] {
  const { installation } = analysis;
  const lines = cableLines(installation);
  if (!lines.known) return [];
  const ids = new Set(cause.findings.map(({ subject }) => subject.id));
  const stretches = cause.findings
    .map(({ subject }) => (subject.about ?? []).flatMap(({ kind, id }) => (kind === 'part' ? [id] : [])))
    .filter((ends) => ends.length > 1);
  const hasStretch = ({ ends, devices }: CableLine): boolean => {
    const parts = [...ends, ...devices].map(({ partId }) => partId);
    return stretches.some((stretch) => stretch.every((id) => parts.includes(id)));
  };
  return lines.value
    .filter((line) => ids.has(line.id) || (line.circuit === undefined && hasStretch(line)))
    .flatMap((line) => {
      const sized = sizeLine(installation, line);
      return sized?.known === true ? [sized.value] : [];
    });
}

/** The design with figures set at some places; undefined where one of them has no place. */
function withFigures(design: Design, edits: readonly Edit[]): Design | undefined {
  const applied = applyEdits(design, edits);
  return applied.ok ? (applied.value as Design) : undefined;
}

interface Resized {
  readonly line: CableLine;
  readonly areaMm2: number;
}

/** Some cables laid in other sizes, in one step. */
function resized(id: string, found: readonly Resized[], ofOne: string, ofEach = ofOne): Candidate[] {
  const [first, ...more] = found;
  if (first === undefined) return [];
  const title =
    more.length === 0
      ? `Lay ${first.line.label} in ${leadSizeWords(first.areaMm2)}, the ${ofOne}`
      : `Lay each of them in the ${ofEach}`;
  return [
    once(id, title, (design) =>
      withFigures(
        design,
        found.map(({ line, areaMm2 }) => ({ op: 'set', path: line.areaPath.map(String), after: areaMm2 })),
      ),
    ),
  ];
}

/** Each of those cables in the smallest size that passes every test and fits its terminals. */
export const fittingSizes = (trouble: Trouble): Candidate[] =>
  resized(
    'fitting-sizes',
    sizedLines(trouble).flatMap(({ line, smallest }) =>
      smallest.kind === 'found' && line.areaMm2.known && smallest.areaMm2 !== line.areaMm2.value
        ? [{ line, areaMm2: smallest.areaMm2 }]
        : [],
    ),
    'smallest that passes',
    'smallest size that passes',
  );

/** Each of those cables in the thickest size below its own that fits its terminals and passes every test. */
export const thinnerSizes = (trouble: Trouble): Candidate[] =>
  resized(
    'thinner-sizes',
    sizedLines(trouble).flatMap(({ line, question }) => {
      if (!line.areaMm2.known) return [];
      const laidMm2 = line.areaMm2.value;
      const below = tabulatedSizes(question.profile, question.laid.tables)
        .filter((areaMm2) => areaMm2 < laidMm2)
        .toReversed();
      const next = smallestSize(question, below);
      return next.kind === 'found' ? [{ line, areaMm2: next.areaMm2 }] : [];
    }),
    'next size that fits and carries',
  );

/** The device of each of those circuits in the next standard rating for its load, with the smallest cable that it may protect. */
export function fittingDevices(trouble: Trouble): Candidate[] {
  const found = sizedLines(trouble).filter(
    ({ line, plannedDeviceA, deviceA }) =>
      line.circuit !== undefined && plannedDeviceA !== undefined && plannedDeviceA !== deviceA,
  );
  const [first, ...more] = found;
  if (first === undefined) return [];
  const title =
    more.length === 0
      ? `Protect ${first.line.label} with ${first.plannedDeviceA ?? 0} A, the next standard device for its load`
      : 'Put in the next standard device for the load of each';
  return [
    once('fitting-devices', title, (design) => ({
      ...design,
      circuits: design.circuits.map((circuit) => {
        const one = found.find(({ line }) => line.circuit?.id === circuit.id);
        const ratedA = one && nextDeviceA(one.question.profile, one.plannedDeviceA ?? 0);
        if (one === undefined || ratedA === undefined) return circuit;
        const { typeId: _type, ...device } = circuit.device ?? {};
        return { ...circuit, device: { ...device, ratedA } };
      }),
    })),
  ];
}

/** Each of those earths in the size that the tables give it. */
export function thickerEarths(trouble: Trouble): Candidate[] {
  const { installation } = trouble.analysis;
  const least = leastEarthing(installation);
  const lines = cableLines(installation);
  if (!lines.known) return [];
  const ids = new Set(trouble.cause.findings.map(({ subject }) => subject.id));
  const found = lines.value.flatMap((line): { line: CableLine; edit: Edit; areaMm2: number }[] => {
    if (!ids.has(line.id)) return [];
    const sized = sizeLine(installation, line);
    const ofCable = sized?.known === true ? sized.value.protectiveMm2 : undefined;
    const isEarth = line.use === 'earth';
    const areaMm2 = isEarth ? (least.known ? least.value.leastMm2 : undefined) : ofCable;
    if (areaMm2 === undefined) return [];
    const path = isEarth ? line.areaPath : ['wiring', 'cables', line.cable?.id ?? '', 'protectiveMm2'];
    return [{ line, areaMm2, edit: { op: 'set', path: path.map(String), after: areaMm2 } }];
  });
  const [first, ...more] = found;
  if (first === undefined) return [];
  return [
    once(
      'thicker-earths',
      more.length === 0
        ? `${leadSizeWords(first.areaMm2)} for the earth of ${first.line.label}`
        : 'Each of those earths in the size that the tables give it',
      (design) =>
        withFigures(
          design,
          found.map(({ edit }) => edit),
        ),
    ),
  ];
}
