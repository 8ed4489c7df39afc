import { linesById } from '../../figures/wiring/cableLines.ts';
import type { Path } from '../../values/problem.ts';
import { type Check, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { cableSubject } from '../support/cables.ts';
import { onNetwork, troubleOrOne, WHOLE } from '../support/network.ts';

/** Sizes that differ by less are one. */
const SAME = 1.02;

/** A splice, tap or lug takes its conductor, and stands in an enclosure. */
export const wiringSplices: Check<'wiring.splices'> = checkOf({
  id: 'wiring.splices',
  title: 'Splices and taps',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}} takes {{range}} and the conductor has {{value}}.',
    tight: '{{subject}} takes {{range}}.',
    within: '{{subject}}: each takes its conductor.',
    unknown: '{{subject}}: whether it fits is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringSplices.id, context, () => {
      const { installation } = context;
      const splices = installation.wiring?.splices ?? [];
      const byId = splices.length === 0 ? undefined : linesById(installation);
      if (byId?.known !== true) return [];
      const findings = splices.flatMap((splice): Found<'range'>[] => {
        const line = byId.value.get(splice.lineId);
        if (line === undefined) return [];
        const { minMm2, maxMm2, kind } = splice;
        const at: Path = ['wiring', 'splices', splice.id];
        const cable = cableSubject(installation, line);
        const subject = { ...cable, id: `splice ${splice.id}`, label: `The ${kind} in ${cable.label}` };
        const missing: Path[] = [
          ...(minMm2 === undefined ? [[...at, 'minMm2']] : []),
          ...(maxMm2 === undefined ? [[...at, 'maxMm2']] : []),
          // A lug ends in a terminal; what joins conductors in their course stands in an enclosure.
          ...(splice.enclosure === undefined && kind !== 'lug' ? [[...at, 'enclosure']] : []),
          ...(line.areaMm2.known ? [] : line.areaMm2.missing),
        ];
        const areaMm2 = line.areaMm2.known ? line.areaMm2.value : undefined;
        const isThin = areaMm2 !== undefined && minMm2 !== undefined && areaMm2 * SAME < minMm2;
        const isThick = areaMm2 !== undefined && maxMm2 !== undefined && areaMm2 > maxMm2 * SAME;
        if (missing.length > 0 && !isThin && !isThick)
          return [unknownFinding(wiringSplices.id, context, subject, 'mm²', missing)];
        return [
          judge(wiringSplices.id, context, {
            subject,
            value: areaMm2,
            limit: isThin ? minMm2 : maxMm2,
            unit: 'mm²',
            bound: isThin ? 'at-least' : 'at-most',
            graded: false,
            data: { range: `${minMm2 ?? '?'} to ${maxMm2 ?? '?'} mm²` },
            working: () => ({
              ...NO_WORKING,
              inputs: [{ label: 'Size', path: line.areaPath, value: areaMm2, unit: 'mm²' }],
              source: 'Range of the splice against the size of the conductor.',
            }),
          }),
        ];
      });
      return troubleOrOne(findings, { ...WHOLE, label: 'Splices and taps' });
    }),
});
