import { isIsolator, type LineDevice } from '../../figures/wiring/cableLine.ts';
import { guardedLines } from '../../figures/wiring/cableLines.ts';
import { type AskedLine, askLine } from '../../sizing/askLine.ts';
import { demandA } from '../../sizing/judgeSize.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { cableSubject } from '../support/cables.ts';
import type { PartKind } from '../../installation/network.ts';
import { onNetwork, partOf, troubleOrOne, WHOLE } from '../support/network.ts';

/** What stands at grid and generator is held against those by checks of their own. */
const OF_SOURCES: ReadonlySet<PartKind> = new Set(['grid', 'generator']);

interface Held {
  readonly device: LineDevice;
  readonly ratedA: number;
  readonly neededA: number;
  readonly isSwitch: boolean;
}

const isRated = ({ ratedA }: LineDevice): boolean => ratedA.known;

/** The device of a cable that has least left for what goes through it; an isolator for the load itself. Undefined while no rating is stated. */
function heldTo({ line, device, question, carried }: AskedLine): Held | undefined {
  const guard: Held | undefined =
    device?.ratedA.known === true
      ? { device, ratedA: device.ratedA.value, neededA: demandA(question), isSwitch: false }
      : undefined;
  const isSwitch = ({ figures }: LineDevice): boolean => isIsolator(figures);
  if (!line.devices.some(isSwitch) && !line.endDevices.some(isSwitch)) return guard;
  return [...line.devices, ...line.endDevices].filter(isSwitch).reduce<Held | undefined>((least, one) => {
    if (!one.ratedA.known) return least;
    const held: Held = {
      device: one,
      ratedA: one.ratedA.value,
      neededA: carried.currentA,
      isSwitch: true,
    };
    return least === undefined || held.ratedA / held.neededA < least.ratedA / least.neededA ? held : least;
  }, guard);
}

/** Devices of circuits, boards and units against the load that goes through them. The service and the battery have checks of their own. */
export const wiringRating: Check<'wiring.rating'> = checkOf({
  id: 'wiring.rating',
  title: 'Devices carry their load',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: its device would have to be rated {{value}} for its load and is rated {{limit}}: it {{does}}.',
    tight: '{{subject}}: its device is rated {{limit}} for {{value}}.',
    within: '{{subject}}: every device is rated for its load.',
    unknown: '{{subject}}: whether its device carries the load is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringRating.id, context, ({ network }) => {
      const { installation } = context;
      const lines = guardedLines(installation);
      if (!lines.known) return [];
      const findings = lines.value.flatMap((line): Found<'does'>[] => {
        const isStated = line.devices.some(isRated) || line.endDevices.some(isRated);
        const isOwn =
          line.ends.some(({ partId }) => OF_SOURCES.has(partOf(network, partId)?.kind ?? 'circuit')) ||
          // A device may be smaller than the set that it stands behind: what it lets through is held at the set.
          line.endDevices.some(({ role }) => role === 'generator-device');
        if (line.use !== 'ac' || !isStated || isOwn) return [];
        const asked = askLine(installation, line);
        const held = asked?.known === true ? heldTo(asked.value) : undefined;
        if (asked?.known !== true || held === undefined) return [];
        const { question, carried } = asked.value;
        return [
          judge(wiringRating.id, context, {
            subject: cableSubject(installation, line),
            value: held.neededA,
            limit: held.ratedA,
            unit: 'A',
            graded: false,
            data: { does: held.isSwitch ? 'is not made for it' : 'opens in service' },
            working: () => ({
              ...NO_WORKING,
              inputs: [
                {
                  label: 'Rating',
                  path: [...held.device.path, 'ratedA'],
                  value: held.ratedA,
                  unit: 'A',
                },
              ],
              source:
                question.profile === 'metric' || held.isSwitch
                  ? `I_b ≤ I_n. ${carried.because}.`
                  : `1.25 times what stays for three hours, and the rest. ${carried.because}.`,
            }),
          }),
        ];
      });
      return troubleOrOne(findings, { ...WHOLE, label: 'Every device whose rating is stated' });
    }),
});
