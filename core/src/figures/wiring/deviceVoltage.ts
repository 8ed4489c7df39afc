import type { Installation } from '../../installation/installation.ts';
import type { Part } from '../../installation/network.ts';
import { all, type Known, mapKnown, unknownAt } from '../../values/known.ts';
import { allStrings, knownString } from '../pv/strings.ts';

/** The highest voltage of a string that a PV switch stands in, V: open circuit on the coldest morning. */
export function stringVoltageV(installation: Installation, part: Part): Known<number> {
  const strings = allStrings(installation).filter(
    ({ array, place }) =>
      array.id === part.arrayId && place.stackId === part.stackId && place.unitId === part.unitId,
  );
  if (strings.length === 0) return unknownAt(['arrays', part.arrayId ?? '', 'coupling']);
  const volts = all(
    Object.fromEntries(strings.map((one) => [one.place.id, knownString(one, installation.site)])),
  );
  return mapKnown(volts, (found) => Math.max(...Object.values(found).map((one) => one.volts.coldOpenV)));
}

/** What a device of so many poles opens in an alternating line, V: line to neutral with one, between the lines with more. */
export function poleVoltageV({ lineVoltageV, supply }: Installation, poles: number): Known<number> {
  return mapKnown(all({ lineVoltageV, supply }), (given) => {
    const lines = given.supply.lines.length;
    if (poles === 1 || lines === 1) return given.lineVoltageV;
    return given.lineVoltageV * (lines === 2 ? 2 : Math.sqrt(3));
  });
}
