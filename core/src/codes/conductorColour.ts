import type { CodeProfileName } from './profile.ts';
import { conductorColours } from './tables.generated.ts';

/** The colour of a conductor by what it is called, as L1, N or DC+; the metric one where nobody has said the code profile. */
export function conductorColour(profile: CodeProfileName | undefined, name: string): string | undefined {
  const own = profile === 'north-american' ? 'na' : 'metric';
  const wanted = name.replace('−', '-');
  return conductorColours.find(
    (row) => row.conductor === wanted && (row.profile === own || row.profile === 'any'),
  )?.colour;
}
