import type { Design } from '../../design/schema.ts';
import { leadSizeWords } from '../../codes/leadSizes.ts';
import { type Candidate, once, type Trouble } from './candidate.ts';

type Wiring = NonNullable<Design['wiring']>;

const inWiring =
  (change: (wiring: Wiring) => Wiring) =>
  (design: Design): Design | undefined =>
    design.wiring === undefined ? undefined : { ...design, wiring: change(design.wiring) };

/**
 * A conduit as wide as its cables want: the share that is filled goes with the square of its diameter, in whole millimetres. A gland that
 * seals on the cable it has.
 */
export function fittingPassages({ design, cause }: Trouble): Candidate[] {
  const { value, limit, unit, bound, subject } = cause.worst;
  const passage = design.wiring?.passages?.find(({ id }) => subject.id.endsWith(id));
  if (passage === undefined || value === undefined || limit === undefined) return [];
  const set = (innerMm: number | undefined, leastMm: number | undefined, title: string): Candidate =>
    once(
      'passage',
      title,
      inWiring((wiring) => ({
        ...wiring,
        passages: wiring.passages?.map((one) =>
          one.id === passage.id
            ? {
                ...one,
                ...(innerMm === undefined ? {} : { innerMm }),
                ...(leastMm === undefined ? {} : { leastMm }),
              }
            : one,
        ),
      })),
    );
  if (unit === 'fraction' && passage.innerMm !== undefined) {
    const wideMm = Math.ceil(passage.innerMm * Math.sqrt(value / limit));
    return [set(wideMm, undefined, `${passage.name}: ${wideMm} mm inside`)];
  }
  if (unit !== 'mm') return [];
  const mm = bound === 'at-least' ? Math.floor(value) : Math.ceil(value);
  return bound === 'at-least'
    ? [set(undefined, mm, `${passage.name}: one that seals from ${mm} mm`)]
    : [set(mm, undefined, `${passage.name}: one that seals up to ${mm} mm`)];
}

/** A splice or tap that takes the conductor. */
export function fittingSplice({ design, cause }: Trouble): Candidate[] {
  const { value, bound, subject } = cause.worst;
  const splice = design.wiring?.splices?.find(({ id }) => subject.id === `splice ${id}`);
  if (splice === undefined || value === undefined) return [];
  return [
    once(
      'splice',
      `A ${splice.kind} that takes ${leadSizeWords(value)}`,
      inWiring((wiring) => ({
        ...wiring,
        splices: wiring.splices?.map((one) =>
          one.id === splice.id
            ? { ...one, ...(bound === 'at-least' ? { minMm2: value } : { maxMm2: value }) }
            : one,
        ),
      })),
    ),
  ];
}
