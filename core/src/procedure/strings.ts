import type { Installation } from '../installation/installation.ts';
import { allStrings, knownString, type StringsAt } from '../figures/pv/strings.ts';
import { confirmation, missingWords } from './specs.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';

function voltageOf(installation: Installation, one: StringsAt): ReadingSpec {
  const base = {
    id: `voc-${one.array.id}-${one.place.id}`,
    label: `Open-circuit voltage, ${one.label}`,
    unit: 'V',
    kind: 'number' as const,
    instrument: 'DC voltmeter rated for the string',
  };
  const given = knownString(one, installation.site);
  if (!given.known) return { ...base, missing: missingWords(installation, given.missing) };
  const { volts, inputs } = given.value;
  return {
    ...base,
    // In the hottest sun it is lowest, on the coldest morning highest; weak light takes a little more away.
    expected: { low: volts.hotOpenV * WEAK_LIGHT, high: volts.coldOpenV },
    abort: { high: inputs.maxV },
    missing: [],
  };
}

/** Open-circuit voltage in weak daylight, as a share of that in full sun. */
const WEAK_LIGHT = 0.9;

/** Each PV string is measured before it is plugged: polarity, and a voltage that the module type and the weather allow. */
export function stringStep(installation: Installation): ProcedureStep[] {
  const strings = allStrings(installation);
  if (strings.length === 0) return [];
  return [
    {
      id: 'gate-strings',
      section: 'gates',
      title: 'PV strings, before they are plugged',
      instructions: [
        'With the PV isolator open, measure each string by itself: polarity first, then open-circuit voltage.',
        'Strings on one input must read alike; a string that differs has a module too many, too few, or turned round.',
      ],
      cautions: [
        'PV conductors are live in daylight whatever is switched off. Never part a plug under load.',
        'A voltage above the limit of the input destroys it at once: do not plug that string.',
      ],
      readings: strings.flatMap((one) => [
        confirmation(`string-polarity-${one.array.id}-${one.place.id}`, `Polarity right, ${one.label}`),
        voltageOf(installation, one),
      ]),
    },
  ];
}
