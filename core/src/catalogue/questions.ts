import type { Problem } from '../values/problem.ts';
import type { BatteryType } from './batteryType.ts';
import type { InverterType } from './inverterType.ts';
import type { EquipmentType } from './schema.ts';
import type { GeneratorType, PvModuleType } from './sourceTypes.ts';

/** One rule of thumb: where a figure lies outside of what is usual, a question to whoever typed it. */
interface Rule<T> {
  readonly key: string;
  readonly asks: (type: T) => string | undefined;
}

const unless = (isUsual: boolean, question: string): string | undefined => (isUsual ? undefined : question);
const within = (value: number, low: number, high: number): boolean => value >= low && value <= high;
const short = (value: number): string => String(Number(value.toPrecision(3)));

const INVERTER: readonly Rule<InverterType>[] = [
  {
    key: 'efficiency',
    asks: ({ efficiency }) =>
      unless(within(efficiency, 0.85, 0.985), `an efficiency of ${short(efficiency * 100)} % is unusual`),
  },
  {
    key: 'overloadCurve',
    asks: ({ overloadCurve }) => {
      const top = overloadCurve.at(-1)?.multiple ?? 1;
      return unless(top <= 3.5, `an overload of ${short(top)} times rated is unusual`);
    },
  },
  {
    key: 'maxDischargeA',
    asks: ({ maxDischargeA, batteryWindowV, ratedW, efficiency }) => {
      const needA = ratedW / efficiency / batteryWindowV.max;
      return unless(
        maxDischargeA >= needA,
        `${maxDischargeA} A at ${batteryWindowV.max} V does not feed ${ratedW} W, which needs ${short(needA)} A`,
      );
    },
  },
  {
    key: 'passThroughA',
    asks: ({ passThroughA, ratedVa, outputV, nativeLines, backupPortA }) => {
      const ratedA = Math.min(ratedVa / (nativeLines === 3 ? 3 : 1) / outputV, backupPortA ?? Infinity);
      return unless(
        passThroughA === undefined || passThroughA >= ratedA * 0.95,
        `the relay carries ${String(passThroughA)} A, less than the ${short(ratedA)} A it is rated to give`,
      );
    },
  },
  {
    key: 'idleW',
    asks: ({ idleW, ratedW }) =>
      unless(idleW <= 0.04 * ratedW && idleW > 0, `${idleW} W of own consumption is unusual`),
  },
  {
    key: 'outputV',
    asks: ({ outputV, nativeLines }) =>
      unless(
        nativeLines === 2 ? within(outputV, 190, 260) : within(outputV, 95, 260),
        `${outputV} V is unusual for this kind of output`,
      ),
  },
];

const BATTERY: readonly Rule<BatteryType>[] = [
  {
    key: 'continuousDischargeA',
    asks: ({ continuousDischargeA, capacityAh }) =>
      unless(
        continuousDischargeA <= 2 * capacityAh,
        `${continuousDischargeA} A from ${capacityAh} Ah would empty it in less than half an hour`,
      ),
  },
  {
    key: 'chargeA',
    asks: ({ chargeA, capacityAh }) =>
      unless(chargeA <= 1.2 * capacityAh, `${chargeA} A into ${capacityAh} Ah is unusually quick`),
  },
  {
    key: 'internalMilliohm',
    asks: ({ internalMilliohm: ohm, nominalV, continuousDischargeA }) =>
      unless(
        ohm === undefined || within((ohm / 1000) * continuousDischargeA, 0.001 * nominalV, 0.06 * nominalV),
        `${String(ohm)} mΩ makes ${short((((ohm ?? 0) / 1000) * continuousDischargeA * 100) / nominalV)} % of sag at the continuous current, which is unusual`,
      ),
  },
  {
    key: 'capacityAh',
    asks: ({ capacityAh }) =>
      unless(within(capacityAh, 5, 2000), `${capacityAh} Ah is unusual for one module`),
  },
  {
    key: 'usableFraction',
    asks: ({ usableFraction, chemistry }) =>
      unless(
        chemistry !== 'lead-acid' || usableFraction <= 0.7,
        `${short(usableFraction * 100)} % of a lead-acid battery would not last`,
      ),
  },
  {
    key: 'chargeMinC',
    asks: ({ chargeMinC, chemistry }) =>
      unless(
        chemistry === 'lead-acid' || chargeMinC >= -10,
        `charging lithium cells at ${chargeMinC} °C ruins them, unless the module heats itself`,
      ),
  },
  {
    key: 'maxV',
    asks: ({ maxV, nominalV }) =>
      unless(maxV <= 1.35 * nominalV, `${maxV} V is unusually far above ${nominalV} V`),
  },
  {
    key: 'minV',
    asks: ({ minV, nominalV }) =>
      unless(minV >= 0.7 * nominalV, `${minV} V is unusually far below ${nominalV} V`),
  },
];

const GENERATOR: readonly Rule<GeneratorType>[] = [
  {
    key: 'altitudeLossPer100M',
    asks: ({ altitudeLossPer100M: loss }) =>
      unless(loss <= 0.03, `${short(loss * 100)} % for each 100 m is unusual: 0.01 is 1 %`),
  },
  {
    key: 'regulation',
    asks: ({ regulation }) =>
      unless(
        regulation === undefined || regulation <= 0.15,
        `${short((regulation ?? 0) * 100)} % is a wide voltage band: 0.03 is 3 %`,
      ),
  },
  {
    key: 'droop',
    asks: ({ droop }) =>
      unless(
        droop === undefined || droop <= 0.1,
        `${short((droop ?? 0) * 100)} % is a large droop: 0.04 is 4 %`,
      ),
  },
  {
    key: 'fuelLPerKwh',
    asks: ({ fuelLPerKwh: fuel }) =>
      unless(fuel === undefined || within(fuel, 0.15, 0.9), `${String(fuel)} L for a kWh is unusual`),
  },
];

const PV_MODULE: readonly Rule<PvModuleType>[] = [
  {
    key: 'ratedW',
    asks: ({ ratedW, vmpV, impA }) =>
      unless(
        within(ratedW / (vmpV * impA), 0.95, 1.05),
        `${ratedW} W is not ${vmpV} V times ${impA} A (${short(vmpV * impA)} W)`,
      ),
  },
  {
    key: 'vocPerK',
    asks: ({ vocPerK }) =>
      unless(
        within(vocPerK, -0.005, -0.0015),
        `${short(vocPerK * 100)} % per K is unusual: −0.0026 is −0.26 %`,
      ),
  },
  {
    key: 'vmpV',
    asks: ({ vmpV, vocV }) =>
      unless(
        within(vmpV / vocV, 0.7, 0.92),
        `an operating voltage of ${short((100 * vmpV) / vocV)} % of open circuit is unusual`,
      ),
  },
];

const asked = <T>(rules: readonly Rule<T>[], type: T): Problem[] =>
  rules.flatMap(({ key, asks }) => {
    const question = asks(type);
    return question === undefined ? [] : [{ path: [key], message: question }];
  });

/**
 * Figures of a type that are possible and unusual: whoever typed them looks at the data sheet again before they are kept. What is
 * impossible is refused by the schema before this is asked.
 */
export function typeQuestions(type: EquipmentType): Problem[] {
  switch (type.kind) {
    case 'inverter':
      return asked(INVERTER, type);
    case 'battery':
      return asked(BATTERY, type);
    case 'generator':
      return asked(GENERATOR, type);
    case 'pv-module':
      return asked(PV_MODULE, type);
    default:
      return [];
  }
}
