import { type PlaceFault, type PlaceSource, faultsAtDevice } from '../../figures/protection/placeFaults.ts';
import { type CableLine, isIsolator, type LineDevice } from '../../figures/wiring/cableLine.ts';
import { guardedLines } from '../../figures/wiring/cableLines.ts';
import type { Installation } from '../../installation/installation.ts';
import type { Network } from '../../installation/network.ts';
import { uniquePaths } from '../../values/known.ts';
import { type Check, type CheckContext, judge, unknownFinding, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { cableSubject } from '../support/cables.ts';
import { onNetwork, partOf, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';
import { NO_WORKING } from '../check.ts';

const SOURCE_WORDS: Readonly<Record<PlaceSource, string>> = {
  grid: 'the grid',
  island: 'the inverters in island',
  generator: 'the generator',
  bank: 'the bank',
  strings: 'the strings',
};

const SOURCE_BASIS: Readonly<Record<PlaceSource, string>> = {
  grid: 'I = V / √((V / I_p)² + R²): prospective current of the service through the cold cables on the way; leads of units are not counted.',
  island: 'n · S · multiple / V of the inverters that can feed this place, cables not counted.',
  generator: 'S / lines · multiple / V of the generators that can feed this place, cables not counted.',
  bank: 'I_sc = U_max / R_bank: inner resistance of the modules alone, without leads; of one module or group what lies on the stronger side.',
  strings: '1.25 · I_sc of the strings behind it.',
};

/** A device that opens on a fault, with what its type says. Residual-current devices and isolators leave that to the one ahead of them. */
interface Opener {
  readonly subject: Subject;
  readonly typeId: string | undefined;
  readonly breakingA: number | undefined;
}

function openerOf(
  installation: Installation,
  network: Network,
  line: CableLine,
  { partId, path, label, figures, typeId }: LineDevice,
): Opener | undefined {
  if (figures === undefined || isIsolator(figures)) return undefined;
  if (figures.breakingA === undefined && figures.device === 'residual-current') return undefined;
  const part = partId === undefined ? undefined : partOf(network, partId);
  const ofLine = cableSubject(installation, line);
  return {
    subject:
      part !== undefined
        ? partSubject(network, part)
        : line.circuit !== undefined
          ? ofLine
          : { ...ofLine, id: path.join('/'), label },
    typeId,
    breakingA: figures.breakingA,
  };
}

function judgeFault(context: CheckContext, opener: Opener, fault: PlaceFault): Found<'less' | 'source'> {
  const { subject, breakingA, typeId } = opener;
  const { source, currentA, uncounted } = fault;
  const missing = [
    ...(currentA.known ? [] : currentA.missing),
    ...(breakingA === undefined ? [['types', typeId ?? '', 'breakingA']] : []),
  ];
  if (!currentA.known || breakingA === undefined)
    return unknownFinding(wiringBreaking.id, context, subject, 'A', uniquePaths(missing));
  return judge(wiringBreaking.id, context, {
    subject,
    value: currentA.value,
    limit: breakingA,
    unit: 'A',
    // Cables on the way that nobody has stated count as nothing: what is within without them is within with them.
    missing: currentA.value > breakingA ? uncounted : [],
    data: {
      source: SOURCE_WORDS[source],
      less: uncounted.length > 0 ? ' (less behind the cables on the way, once they are stated)' : '',
    },
    working: () => ({
      ...NO_WORKING,
      inputs: [
        {
          label: 'Breaking capacity',
          path: ['types', typeId ?? '', 'breakingA'],
          value: breakingA,
          unit: 'A',
        },
      ],
      source: SOURCE_BASIS[source],
    }),
  });
}

const RANK = { over: 0, unknown: 1, tight: 2, within: 3 } as const;

/** Of the sources of a place the one that is worst for its device. */
const worse = (a: Found<'less' | 'source'>, b: Found<'less' | 'source'>): Found<'less' | 'source'> =>
  RANK[a.state] !== RANK[b.state]
    ? RANK[a.state] < RANK[b.state]
      ? a
      : b
    : (a.margin ?? 1) <= (b.margin ?? 1)
      ? a
      : b;

/** Breaking capacity of every device of a stated type against what each source can drive into a bolted fault right behind it. */
export const wiringBreaking: Check<'wiring.breaking'> = checkOf({
  id: 'wiring.breaking',
  title: 'Breaking capacity of devices',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{source}} can drive {{value}} into a fault{{less}} and the device opens {{limit}} at most.',
    tight:
      '{{subject}}: {{source}} can drive {{value}} into a fault; the device opens {{limit}}: {{margin}} left.',
    within: '{{subject}}: {{source}} can drive {{value}} into a fault; the device opens {{limit}}.',
    unknown: '{{subject}}: the fault current is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringBreaking.id, context, ({ network }) => {
      const { installation } = context;
      const lines = guardedLines(installation);
      if (!lines.known) return [];
      const seen = new Set<string>();
      const findings = lines.value.flatMap((line) =>
        [...line.devices, ...line.endDevices].flatMap((device): Found<'less' | 'source'>[] => {
          // A battery device stands in the lead of each pole, and several cables may end at one device: it is one.
          if (device.partId !== undefined && seen.has(device.partId)) return [];
          const opener = openerOf(installation, network, line, device);
          if (opener === undefined) return [];
          if (device.partId !== undefined) seen.add(device.partId);
          const found = faultsAtDevice(installation, line, device).map((fault) =>
            judgeFault(context, opener, fault),
          );
          const [first, ...rest] = found;
          return first === undefined ? [] : [rest.reduce(worse, first)];
        }),
      );
      return troubleOrOne(findings, { ...WHOLE, label: 'Every device of a stated breaking capacity' });
    }),
});
