import type { FirstValue } from '../../design/firstValues.ts';
import type { Device, Stack } from '../../design/schema.ts';
import { planComms, plannedAddress } from '../wiring.ts';
import { leadForDevice } from './conductors.ts';
import type { BankPlan, Kit, NewId } from './kit.ts';

/** A backup reserve to begin with: half of the battery is kept for an outage. */
const FIRST_RESERVE = 0.5;
/** From an inverter to the bank and from a module to its bar, m. */
const FIRST_INVERTER_LEAD_M = 1.5;
const FIRST_MODULE_LEAD_M = 1;

/** Voltages of an open loop to begin with: a little inside of what the modules allow. */
function openLoop({ type, inSeries }: BankPlan) {
  const volts = (one: number, share: number): number => Number((one * inSeries * share).toFixed(1));
  return {
    loop: 'open' as const,
    links: [],
    setPoints: {
      chargeV: volts(type.maxV, 0.97),
      floatV: volts(type.maxV, 0.95),
      cutoffV: volts(type.minV, 1.05),
    },
  };
}

/** The places of the bars that inverters tap, spread evenly over the modules so that their currents are even too. */
function barPlaces(stack: Stack, plan: BankPlan): FirstValue[] {
  const sharing = plan.isOwn ? 1 : stack.units.length;
  return stack.units.map(({ id }, index) => ({
    path: ['stacks', stack.id, 'units', id, 'barPlace'],
    value: Math.floor((((index % sharing) + 0.5) * plan.inParallel) / sharing) + 1,
  }));
}

/** Bars with equal leads, each lead as thick as its device asks for. */
function joiningValues({ stack, site }: Kit, plan: BankPlan): FirstValue[] {
  const path = ['stacks', stack.id, 'bank'];
  const areaMm2 = leadForDevice(site.codeProfile, plan.type.peakDischargeA, site.equipmentHighestC);
  const { bar } = plan;
  return [
    { path: [...path, 'joining'], value: 'bars-equal' },
    {
      path: [...path, 'lead'],
      value: { lengthM: FIRST_MODULE_LEAD_M, ...(areaMm2 === undefined ? {} : { areaMm2 }) },
    },
    ...(bar === undefined ? [] : [{ path: [...path, 'barTypeId'], value: bar.id }]),
    ...barPlaces(stack, plan),
  ];
}

/** Everything of a bank that can be planned from its type. */
export function bankValues(kit: Kit): FirstValue[] {
  const { stack, inverter, bank: plan } = kit;
  if (plan === undefined || typeof stack.bank !== 'object') return [];
  const path = ['stacks', stack.id, 'bank'];
  const areaMm2 = plan.device?.areaMm2;
  return [
    { path: [...path, 'serves'], value: plan.isOwn ? 'one-unit' : 'all-units' },
    { path: [...path, 'reserveSoc'], value: FIRST_RESERVE },
    { path: [...path, 'cutoffSoc'], value: Number((1 - plan.type.usableFraction).toFixed(3)) },
    ...(plan.isSeries ? [] : joiningValues(kit, plan)),
    {
      path: [...path, 'inverterLead'],
      value: { lengthM: FIRST_INVERTER_LEAD_M, ...(areaMm2 === undefined ? {} : { areaMm2 }) },
    },
    { path: [...path, 'comms'], value: planComms(stack.bank, plan.type, inverter) ?? openLoop(plan) },
    ...stack.bank.modules.flatMap(({ id }, index) => {
      const address = plannedAddress(plan.type, index);
      return address === undefined ? [] : [{ path: [...path, 'modules', id, 'address'], value: address }];
    }),
  ];
}

/** Settings go by the name of the battery they are made for, on every unit alike. */
export const profileValues = ({ stack, bank: plan }: Kit): FirstValue[] =>
  plan === undefined
    ? []
    : stack.units.map(({ id }) => ({
        path: ['stacks', stack.id, 'units', id, 'batteryProfile'],
        value: plan.type.name.slice(0, 60),
      }));

/** The battery device of each inverter, where the catalogue has one that fits. */
export function bankDevices(
  { stack, bank: plan }: Kit,
  newId: NewId,
): { readonly devices: readonly Device[]; readonly values: readonly FirstValue[] } {
  const type = plan?.device?.device;
  if (type === undefined) return { devices: [], values: [] };
  const devices = stack.units.map((unit) => ({
    id: newId('d'),
    role: 'battery-unit' as const,
    stackId: stack.id,
    unitId: unit.id,
  }));
  return {
    devices,
    values: devices.flatMap(({ id }) => [
      { path: ['devices', id, 'fitted'], value: 'yes' },
      { path: ['devices', id, 'typeId'], value: type.id },
    ]),
  };
}
