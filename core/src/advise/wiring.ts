import type { BatteryType } from '../catalogue/batteryType.ts';
import type { InverterType } from '../catalogue/inverterType.ts';
import { fittedModules } from '../figures/bank/bank.ts';
import { HOST } from '../figures/bank/bankComms.ts';
import type { Bank, Stack } from '../design/schema.ts';
import type { BankComms } from '../design/stackSchema.ts';

export interface BusPlan {
  readonly busLinks: NonNullable<Stack['busLinks']>;
  readonly terminated: readonly string[];
}

/** The parallel bus through the units in the order of the list, by the rule of the type; undefined where the type states none. */
export function planBus({ units }: Stack, { parallelBus: rule }: InverterType): BusPlan | undefined {
  if (rule === undefined || units.length < 2) return undefined;
  const last = rule.shape === 'ring' ? units.length : units.length - 1;
  const busLinks = Array.from({ length: last }, (_, at) => ({
    id: `link-${at + 1}`,
    fromUnitId: units[at]?.id ?? '',
    fromPort: rule.fromPort,
    toUnitId: units[(at + 1) % units.length]?.id ?? '',
    toPort: rule.toPort,
  }));
  const isSet = rule.shape === 'line' && (rule.ends === 'switch' || rule.ends === 'plug');
  const ends = [units[0], units.at(-1)].flatMap((unit) => (unit === undefined ? [] : [unit.id]));
  return { busLinks, terminated: isSet ? ends : [] };
}

/** A closed loop through the fitted modules in the order of the list, or undefined where the two types share no protocol. */
export function planComms(bank: Bank, battery: BatteryType, inverter: InverterType): BankComms | undefined {
  const protocol = battery.commsProtocols?.find((one) => inverter.batteryProtocols?.includes(one));
  const { commsChain: chain } = battery;
  if (protocol === undefined || chain === undefined || inverter.batteryCommsPort === undefined)
    return undefined;
  const ids = fittedModules(bank).map(({ id }) => id);
  const links = ids.map((to, at) => ({
    id: `bus-${at + 1}`,
    from: at === 0 ? HOST : (ids[at - 1] ?? HOST),
    fromPort: at === 0 ? (inverter.batteryCommsPort ?? '') : chain.fromPort,
    to,
    toPort: at === 0 ? chain.hostPort : chain.toPort,
  }));
  const isSet = battery.terminators === 'plug' || battery.terminators === 'switch';
  return { loop: 'closed', protocol, links, terminated: isSet ? ids.slice(-1) : [] };
}

/** Address that the rule of a type gives a module by its place on the bus, or undefined where it takes one itself. */
export const plannedAddress = (battery: BatteryType, place: number): number | undefined =>
  battery.addressRule === 'from-0' ? place : battery.addressRule === 'from-1' ? place + 1 : undefined;
