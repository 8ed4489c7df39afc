import type { InverterType } from '../catalogue/inverterType.ts';
import { leadOhm } from '../codes/leads.ts';
import { fittedModules } from '../figures/bank/bank.ts';
import { newestFirmware } from '../installation/newestFirmware.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { Network } from '../installation/network.ts';
import type { Supply } from '../installation/supply.ts';
import { PV_PERFORMANCE } from '../rehearse/plant.ts';
import type { SiteBoard, SiteInstrument, SiteModule, SiteUnit } from './siteTypes.ts';

/** What stands for the firmware of units of which none is recorded: they are alike. */
export const NOT_RECORDED = 'not recorded';

function sunOn({ arrays }: Installation, stackId: string, unitId: string): number {
  return arrays.reduce((sum, { array, moduleType }) => {
    if (array.coupling === 'ac' || !moduleType.known) return sum;
    const strings = (array.places ?? [])
      .filter((place) => place.stackId === stackId && place.unitId === unitId)
      .reduce((total, place) => total + place.strings, 0);
    return sum + strings * (array.modulesPerString ?? 0) * moduleType.value.ratedW * PV_PERFORMANCE;
  }, 0);
}

/** AC power of the arrays on the boards of a set under a clear sky, W. */
export const sunAcOn = (arrays: Installation['arrays']): number =>
  arrays.reduce((sum, { array }) => sum + (array.ratedAcW ?? 0) * PV_PERFORMANCE, 0);

/** The addresses that are stated, and the lowest free ones for the others: nobody gets the address of somebody else for want of one. */
function addressesOf({ stack }: CompiledStack): number[] {
  const taken = new Set(stack.units.flatMap(({ busAddress }) => busAddress ?? []));
  let free = 1;
  return stack.units.map(({ busAddress }) => {
    if (busAddress !== undefined) return busAddress;
    while (taken.has(free)) free += 1;
    taken.add(free);
    return free;
  });
}

/** Resistance of the AC lead of each unit, Ohm; undefined while one of them is not stated. */
function acLeadsOf({ stack, defaults }: CompiledStack): number[] | undefined {
  const ohms = stack.units.flatMap(({ acLead }) =>
    acLead?.lengthM === undefined || acLead.areaMm2 === undefined
      ? []
      : [leadOhm(acLead.lengthM, acLead.areaMm2, defaults.leadC.value)],
  );
  return ohms.length === stack.units.length ? ohms : undefined;
}

/** The units of a set, counted on from those of the sets before. */
export function siteUnits(
  installation: Installation,
  compiled: CompiledStack,
  lines: ReadonlyMap<string, readonly number[]>,
  from: number,
): { readonly units: SiteUnit[]; readonly hasAcLeads: boolean } {
  const { stack } = compiled;
  const host = stack.hostUnitId ?? stack.units[0]?.id;
  const newest = newestFirmware(stack.units.map(({ firmware }) => firmware)) ?? NOT_RECORDED;
  const addresses = addressesOf(compiled);
  const leads = acLeadsOf(compiled);
  return {
    hasAcLeads: leads !== undefined,
    units: stack.units.map((unit, index): SiteUnit => ({
      number: from + index,
      unit,
      label: `unit ${from + index}`,
      lines: lines.get(unit.id) ?? [],
      sourceId: `unit ${stack.id}/${unit.id}`,
      address: addresses[index] ?? index + 1,
      isHost: unit.id === host,
      firmware: unit.firmware ?? newest,
      acLeadOhm: leads?.[index] ?? 0,
      sunW: sunOn(installation, stack.id, unit.id),
    })),
  };
}

/** The modules of a set that are fitted, counted on from those of the sets before. */
export function siteModules({ stack, batteryTypes }: CompiledStack, from: number): SiteModule[] {
  const { bank } = stack;
  if (typeof bank !== 'object') return [];
  return fittedModules(bank).flatMap((module, index): SiteModule[] => {
    const type = batteryTypes[module.batteryTypeId ?? bank.batteryTypeId ?? ''];
    return type === undefined
      ? []
      : [{ number: from + index, module, label: `module ${from + index}`, capacityAh: type.capacityAh }];
  });
}

/** Resistance by which the output of a unit gives way, Ohm; none where its type states none. */
export const outputOhmOf = ({ outputMilliohm }: InverterType): number => (outputMilliohm ?? 0) / 1000;

/** Meters and sensors with the lines they look at. */
export function siteInstruments(
  { instruments, controllers }: Installation,
  supply: Supply,
): SiteInstrument[] {
  const every = supply.lines.map((_, index) => index);
  return [
    ...instruments.map(({ instrument }, index): SiteInstrument => {
      const at = instrument.line === undefined ? -1 : supply.lines.indexOf(instrument.line);
      return {
        id: instrument.id,
        label: instrument.name ?? `${instrument.kind} ${index + 1}`,
        lines: at < 0 ? every : [at],
        at: instrument.at,
      };
    }),
    ...controllers.flatMap(({ controller }) =>
      controller.meters.map((meter): SiteInstrument => ({
        id: meter.id,
        label: `${meter.role} meter`,
        lines: every,
        at: METER_PLACES[meter.role],
      })),
    ),
  ];
}

const METER_PLACES = { grid: 'service', load: 'backed-up-board', generation: 'array' } as const;

export function siteBoards({ partitions }: Installation, { parts }: Network): SiteBoard[] {
  return parts.flatMap((part): SiteBoard[] => {
    const partition =
      part.kind === 'board' ? partitions.find(({ id }) => id === part.partitionId) : undefined;
    return partition === undefined ? [] : [{ partId: part.id, name: part.label, partition }];
  });
}
