import type { BatteryType } from '../catalogue/batteryType.ts';
import type { InverterType } from '../catalogue/inverterType.ts';

/** How many modules in series keep a stack inside the inverter's window at both ends of its range, within the type's own counts. */
export function seriesWindow(battery: BatteryType, inverter: InverterType): { least: number; most: number } {
  const { min, max } = inverter.batteryWindowV;
  return {
    least: Math.max(battery.minModules ?? 1, Math.ceil(min / battery.minV - 1e-9)),
    most: Math.min(battery.maxModules, Math.floor(max / battery.maxV + 1e-9)),
  };
}

/** One link of a high-voltage stack: what is joined to what, with the voltage across the stack below it once it is closed. */
export interface SeriesLink {
  readonly from: string;
  readonly to: string;
  readonly voltageV: number;
  readonly note: string;
}

/**
 * The order in which a series stack is joined, from its negative end upwards, link by link with polarity. The service disconnect
 * is closed last: until then no more than half of the stack stands between two touchable points.
 */
export function seriesOrder(moduleCount: number, nominalV: number, hasDisconnect: boolean): SeriesLink[] {
  if (moduleCount < 1) return [];
  const middle = Math.ceil(moduleCount / 2);
  const links: SeriesLink[] = [
    { from: 'inverter battery −', to: 'module 1 −', voltageV: 0, note: 'inverter isolated and proven dead' },
  ];
  for (let at = 1; at < moduleCount; at += 1) {
    const isMiddle = hasDisconnect && at === middle;
    links.push({
      from: `module ${at} +`,
      to: `module ${at + 1} −`,
      voltageV: isMiddle
        ? middle * nominalV
        : (at < middle || !hasDisconnect ? at + 1 : at - middle + 1) * nominalV,
      note: isMiddle
        ? 'by the service disconnect: leave it open until all else is joined'
        : 'link, polarity measured',
    });
  }
  links.push({
    from: `module ${moduleCount} +`,
    to: 'inverter battery +',
    voltageV: moduleCount * nominalV,
    note: 'through the battery device, open',
  });
  return links;
}
