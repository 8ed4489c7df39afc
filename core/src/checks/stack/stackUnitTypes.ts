import { all } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

/** How far a voltage setting may be from the line voltage of the site, as a share of it. */
const SETTING_FIT = 0.02;

/** Units of other types, bus addresses and frequency settings of a set: alike where the type wants it, and no two the same address. */
export const stackUnitTypes: Check<'stack.unit-types'> = checkOf({
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
            unit.frequencyHz !== undefined ||
            unit.outputV !== undefined,
        );
        return says ? all({ type }) : undefined;
      },
      ({ stack }, { type }) => {
        const { frequencyHz, lineVoltageV } = context.installation.site;
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
        const volts = stack.units.flatMap((unit, at) =>
          unit.outputV !== undefined &&
          lineVoltageV !== undefined &&
          Math.abs(unit.outputV - lineVoltageV) > SETTING_FIT * lineVoltageV
            ? [`unit ${at + 1} is set to ${unit.outputV} V on a site of ${lineVoltageV} V`]
            : [],
        );
        const hertzSet = new Set(stack.units.flatMap((unit) => unit.frequencyHz ?? []));
        const voltsSet = new Set(stack.units.flatMap((unit) => unit.outputV ?? []));
        const reasons = [
          ...volts,
          ...(hertzSet.size > 1 ? ['its units are set to different frequencies'] : []),
          ...(voltsSet.size > 1 ? ['its units are set to different voltages'] : []),
          ...(others.length > 0 && type.mixedTypes !== 'yes'
            ? [
                `${others.length} of its units are of another type, which ${type.name} does not allow in one set`,
              ]
            : []),
          ...twins.map((address) => `bus address ${address} is set on more than one unit`),
          ...astray,
        ];
        return { reasons, kept: 'types, addresses, frequency and voltage of its units fit together' };
      },
    ),
});
