import { acceptanceOf } from '../checks/accepted.ts';
import type { Analysis } from '../checks/analyse.ts';
import { sentenceOf } from '../checks/sentence.ts';
import { statedOf } from '../installation/stated.ts';
import type { Procedure } from './schema.ts';

type AcceptedLine = NonNullable<Procedure['accepted']>[number];

/** Every acceptance that still counts, once, with the finding as it stands now. */
export function acceptedLines({ installation, findings }: Analysis): AcceptedLine[] {
  const lines = new Map<string, AcceptedLine>();
  for (const finding of findings) {
    const accepted = acceptanceOf(installation, finding);
    if (accepted === undefined || lines.has(accepted.id)) continue;
    const { by, reason, at } = accepted;
    lines.set(accepted.id, { finding: sentenceOf(statedOf(installation), finding), by, reason, at });
  }
  return [...lines.values()];
}
