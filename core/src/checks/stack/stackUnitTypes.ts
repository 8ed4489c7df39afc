import { all } from '../../values/known.ts';
import type { Check } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

/** Units of other types, bus addresses and frequency settings of a set: alike where the type wants it, and no two the same address. */
export const stackUnitTypes: Check<'stack.unit-types'> = {
  id: 'stack.unit-types',
  title: 'Units fit together',
  family: 'stack',
  modes: 'once',
  sentences: rulingSentences('whether the units fit together'),
  run: (context) =>
    eachRuling(
      stackUnitTypes.id,
      context,
      'What the inverter type allows in one set; addresses and settings of each unit as typed.',
      stackSubject,
      ({ stack, type }) => {
        const says = stack.units.some(
          (unit) =>
            unit.inverterTypeId !== undefined ||
            unit.busAddress !== undefined ||
            unit.frequencyHz !== undefined,
        );
        return says ? all({ type }) : undefined;
      },
      ({ stack }, { type }) => {
        const { frequencyHz } = context.installation.site;
        const others = stack.units.filter(
          (unit) => unit.inverterTypeId !== undefined && unit.inverterTypeId !== stack.inverterTypeId,
        );
        const addresses = stack.units.flatMap(({ busAddress }) =>
          busAddress === undefined ? [] : [busAddress],
        );
        const twins = [...new Set(addresses.filter((one, at) => addresses.indexOf(one) !== at))];
        const astray = stack.units.flatMap((unit, at) =>
          unit.frequencyHz !== undefined && frequencyHz !== undefined && unit.frequencyHz !== frequencyHz
            ? [`unit ${at + 1} is set to ${unit.frequencyHz} Hz on a site of ${frequencyHz} Hz`]
            : [],
        );
        const reasons = [
          ...(others.length > 0 && type.mixedTypes !== 'yes'
            ? [
                `${others.length} of its units are of another type, which ${type.name} does not allow in one set`,
              ]
            : []),
          ...twins.map((address) => `bus address ${address} is set on more than one unit`),
          ...astray,
        ];
        return { reasons, kept: 'types, addresses and frequency of its units fit together' };
      },
    ),
};
