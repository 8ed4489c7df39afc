import { isAtLeastMm2, leadSizeWords } from '../../codes/leadSizes.ts';
import type { CableLine } from '../../figures/wiring/cableLine.ts';
import { sizedLines } from '../../figures/wiring/cableLines.ts';
import type { Installation } from '../../installation/installation.ts';
import { leastEarthing } from '../../sizing/earthLines.ts';
import { judgeEarth } from '../../sizing/judgeEarth.ts';
import { sizeLine } from '../../sizing/sizeLine.ts';
import type { Path } from '../../values/problem.ts';
import { type Check, type CheckContext, judge, NO_WORKING, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { cableSubject } from '../support/cables.ts';
import { onNetwork, troubleOrOne, WHOLE } from '../support/network.ts';

/** An earth conductor with what it has to be. */
interface Held {
  readonly statedMm2: number;
  readonly leastMm2: number;
  readonly path: Path;
  readonly working: string;
}

/** What somebody has stated of the earth in a cable, or of one that is an earth; undefined where nothing is stated or nothing can be said. */
function heldOf(installation: Installation, line: CableLine): Held | undefined {
  if (line.use === 'earth') {
    const least = leastEarthing(installation);
    if (!line.areaMm2.known || !least.known) return undefined;
    const { leastMm2, working } = least.value;
    return { statedMm2: line.areaMm2.value, leastMm2, path: line.areaPath, working };
  }
  const statedMm2 = line.cable?.protectiveMm2;
  if (line.cable === undefined || statedMm2 === undefined || !line.areaMm2.known) return undefined;
  const sized = sizeLine(installation, line);
  if (sized?.known !== true) return undefined;
  const answer = judgeEarth(sized.value);
  if (answer === undefined) return undefined;
  const { leastMm2, working } = answer;
  const path = ['wiring', 'cables', line.cable.id, 'protectiveMm2'];
  return { statedMm2, leastMm2, path, working };
}

function findingOf(context: CheckContext, line: CableLine, held: Held): Found<'has' | 'reason'> {
  const { statedMm2, leastMm2, path, working } = held;
  return judge(wiringEarthing.id, context, {
    subject: cableSubject(context.installation, line),
    value: isAtLeastMm2(statedMm2, leastMm2) ? Math.min(leastMm2, statedMm2) : leastMm2,
    limit: statedMm2,
    unit: 'mm²',
    graded: false,
    data: { has: leadSizeWords(statedMm2), reason: working },
    working: () => ({
      ...NO_WORKING,
      inputs: [{ label: 'Size', path, value: statedMm2, unit: 'mm²' }],
      source: `Protective conductors by table 54.2 of IEC 60364-5-54 or S ≥ √(I² · t) / k, earthing conductors by 542.3; North American by tables 250.122 and 250.66. ${working}.`,
    }),
  });
}

/** Protective conductors in cables, and those to earthing bars and electrodes, of stated size. What nobody stated is not asked for here. */
export const wiringEarthing: Check<'wiring.earthing'> = checkOf({
  id: 'wiring.earthing',
  title: 'Protective and earthing conductors',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: its earth is {{has}} and has to be {{value}}: {{reason}}.',
    tight: '{{subject}}: its earth is {{has}}: {{reason}}.',
    within: '{{subject}}: its earth is thick enough.',
    unknown: '{{subject}}: whether its earth is thick enough is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringEarthing.id, context, () => {
      const lines = sizedLines(context.installation);
      if (!lines.known) return [];
      const findings = lines.value.flatMap((line) => {
        const held = heldOf(context.installation, line);
        return held === undefined ? [] : [findingOf(context, line, held)];
      });
      return troubleOrOne(findings, { ...WHOLE, label: 'Every earth of a stated size' });
    }),
});
