import { newestFirmware } from '../../installation/newestFirmware.ts';
import { bankOfSet } from '../../figures/bank/ofSet.ts';
import { changedStack, equalInverterLeads } from '../sharing.ts';
import { plannedAddress, planBus, planComms } from '../wiring.ts';
import { type Candidate, inBank, inStack, once, type Trouble } from './candidate.ts';

/** Cables, addresses and terminators of the battery bus as the rule of the type wants them. */
export function batteryBus({ compiled }: Trouble): Candidate[] {
  const bank = compiled && bankOfSet(compiled);
  if (compiled?.type.known !== true || bank?.known !== true || bank.value === 'none') return [];
  const { type } = bank.value;
  const inverter = compiled.type.value;
  return [
    once('addresses', 'Set the addresses in the order of the bus', (design) =>
      inBank(compiled.stack.id, (one) => {
        const order = one.comms?.links.map(({ to }) => to) ?? one.modules.map(({ id }) => id);
        return {
          ...one,
          modules: one.modules.map((module) => {
            const address = plannedAddress(type, order.indexOf(module.id));
            return address === undefined ? module : { ...module, address };
          }),
        };
      })(design),
    ),
    once('battery-ends', 'Set the terminators of the battery bus as its type wants them', (design) =>
      inBank(compiled.stack.id, (one) => {
        const plan = planComms(one, type, inverter);
        return one.comms === undefined || plan?.terminated === undefined
          ? one
          : { ...one, comms: { ...one.comms, terminated: plan.terminated } };
      })(design),
    ),
    once('battery-bus', 'Plug the battery bus as its type wants it', (design) =>
      inBank(compiled.stack.id, (one) => {
        const plan = planComms(one, type, inverter);
        return plan === undefined ? one : { ...one, comms: { ...one.comms, ...plan } };
      })(design),
    ),
  ];
}

/** Cables and terminators of the parallel bus as the rule of the type wants them. */
export function parallelBus({ compiled }: Trouble): Candidate[] {
  if (compiled?.type.known !== true) return [];
  const plan = planBus(compiled.stack, compiled.type.value);
  if (plan === undefined) return [];
  const terminated = [...plan.terminated];
  return [
    once(
      'bus-ends',
      'Set the terminators of the parallel bus at its two ends',
      inStack(compiled.stack.id, (one) => ({ ...one, terminated })),
    ),
    once(
      'bus',
      'Plug the parallel bus as its type wants it',
      inStack(compiled.stack.id, (one) => ({ ...one, busLinks: plan.busLinks, terminated })),
    ),
  ];
}

/** Settings of the units as the site has them. */
export function unitSettings({ compiled, design }: Trouble): Candidate[] {
  if (compiled === undefined) return [];
  const { frequencyHz, lineVoltageV } = design.site;
  return [
    once('unit-settings', 'Set frequency and voltage of every unit as of the site', (draft) =>
      inStack(compiled.stack.id, (stack) => ({
        ...stack,
        units: stack.units.map((unit) => ({
          ...unit,
          ...(unit.frequencyHz === undefined || frequencyHz === undefined ? {} : { frequencyHz }),
          ...(unit.outputV === undefined || lineVoltageV === undefined ? {} : { outputV: lineVoltageV }),
        })),
      }))(draft),
    ),
  ];
}

/** As much battery current as the type takes, where it is set to less. */
export function fullDischarge({ compiled }: Trouble): Candidate[] {
  const setA = compiled?.stack.dischargeCurrentA;
  if (compiled?.type.known !== true || setA === undefined) return [];
  const { maxDischargeA } = compiled.type.value;
  if (setA >= maxDischargeA) return [];
  return [
    once(
      'full-discharge',
      `Set the discharge current of every unit to ${maxDischargeA} A`,
      inStack(compiled.stack.id, (one) => ({ ...one, dischargeCurrentA: maxDischargeA })),
    ),
  ];
}

/** Currents within the type, and levels of the generator as planned. */
export function fittingSettings({ compiled }: Trouble): Candidate[] {
  if (compiled?.type.known !== true) return [];
  const { maxDischargeA, maxChargeA } = compiled.type.value;
  return [
    once(
      'currents-of-type',
      'Set the currents of every unit to what its type takes',
      inStack(compiled.stack.id, (one) => ({
        ...one,
        ...(one.dischargeCurrentA === undefined
          ? {}
          : { dischargeCurrentA: Math.min(one.dischargeCurrentA, maxDischargeA) }),
        ...(one.chargeCurrentA === undefined
          ? {}
          : { chargeCurrentA: Math.min(one.chargeCurrentA, maxChargeA) }),
      })),
    ),
    once(
      'generator-levels',
      'Call the generator and let it go at the planned levels',
      inStack(compiled.stack.id, ({ settings, ...one }) => {
        const { generatorFromSoc: _from, generatorToSoc: _to, ...others } = settings ?? {};
        return { ...one, settings: others };
      }),
    ),
    once(
      'windows-off',
      'Set no windows by time',
      inStack(compiled.stack.id, ({ settings, ...one }) => {
        const { windows: _, ...others } = settings ?? {};
        const { workMode } = others;
        return { ...one, settings: workMode === 'by-time' ? { ...others, workMode: 'own-use' } : others };
      }),
    ),
  ];
}

const CHARGE_STEPS = 20;

/** Less charging from the side that is over, in twentieths of what is set. */
export function lessCharging({ compiled }: Trouble, key: 'gridChargeW' | 'generatorChargeW'): Candidate[] {
  const now = compiled?.stack[key];
  if (compiled === undefined || now === undefined || now === 0) return [];
  const at = (step: number): number => Math.floor((now * (1 - step / CHARGE_STEPS)) / 50) * 50;
  return [
    {
      id: `less-${key}`,
      title: (step) =>
        `Charge with ${at(step)} W a unit from the ${key === 'gridChargeW' ? 'grid' : 'generator'}`,
      most: CHARGE_STEPS,
      isRising: true,
      make: (design, step) => inStack(compiled.stack.id, (one) => ({ ...one, [key]: at(step) }))(design),
    },
  ];
}

/** The newest firmware that is on one of the units on all of them, part by part where the type has parts. */
export function sameFirmware({ compiled }: Trouble): Candidate[] {
  if (compiled === undefined) return [];
  const { units } = compiled.stack;
  const version = newestFirmware(units.map(({ firmware }) => firmware));
  const ofPart = (part: string): string | undefined =>
    newestFirmware(units.map(({ firmwareParts }) => firmwareParts?.find(({ id }) => id === part)?.version));
  const words = version === undefined ? 'the newest firmware that one of them has' : `firmware ${version}`;
  return [
    once('firmware', `Load ${words} on every unit`, (design) =>
      inStack(compiled.stack.id, (stack) => ({
        ...stack,
        units: stack.units.map((unit) => ({
          ...unit,
          ...(unit.firmware === undefined || version === undefined ? {} : { firmware: version }),
          ...(unit.firmwareParts === undefined
            ? {}
            : {
                firmwareParts: unit.firmwareParts.map((part) => ({
                  ...part,
                  version: ofPart(part.id) ?? part.version,
                })),
              }),
        })),
      }))(design),
    ),
  ];
}

/** AC leads of units that work side by side, all as long as the longest of them. */
export function equalAcLeads({ compiled }: Trouble): Candidate[] {
  if (compiled === undefined) return [];
  const lengths = compiled.stack.units.flatMap((unit) => unit.acLead?.lengthM ?? []);
  const longestM = Math.max(...lengths);
  if (lengths.length < 2) return [];
  return [
    once('equal-acLead', `Cut the AC leads of all units to ${longestM} m`, (design) =>
      inStack(compiled.stack.id, (stack) => ({
        ...stack,
        units: stack.units.map((unit) =>
          unit.acLead === undefined ? unit : { ...unit, acLead: { ...unit.acLead, lengthM: longestM } },
        ),
      }))(design),
    ),
  ];
}

/** Battery leads of the inverters, all as the longest: the change that helps the modules to share as well. */
export function equalBatteryLeads({ compiled }: Trouble): Candidate[] {
  const bank = compiled?.stack.bank;
  if (compiled === undefined || typeof bank !== 'object') return [];
  const change = equalInverterLeads(compiled.stack, bank);
  return change === undefined
    ? []
    : [
        once(
          change.id,
          change.label,
          inStack(compiled.stack.id, (stack) => changedStack(stack, change)),
        ),
      ];
}
