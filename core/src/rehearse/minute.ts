const HOUR = 60;

/** Watt-hours by where they come from and where they go: sun + generator + battery = served + losses + idle. */
export interface Energy {
  served: number;
  unserved: number;
  sunDc: number;
  sunAc: number;
  curtailed: number;
  generator: number;
  losses: number;
  idle: number;
  /** Taken from the battery, less what was put in. */
  battery: number;
}

/** One minute as it is worked out, written over by the next one. */
export interface Minute {
  soc: number;
  /** Wanted by everything that should be live, and by what is on. */
  wantedW: number;
  loadW: number;
  /** Share of the minute in which what is on was served. */
  served: number;
  sunDcW: number;
  sunAcW: number;
  generatorW: number;
  /** Out of the bank; below nought while it is charged. */
  batteryW: number;
  lossW: number;
  idleW: number;
  /** One bit for each board that is on. */
  boards: number;
}

/** That part of a minute and no more. */
export function scaleTo(now: Minute, part: number): void {
  now.served = part;
  now.sunDcW *= part;
  now.sunAcW *= part;
  now.batteryW *= part;
  now.lossW *= part;
  now.idleW *= part;
}

/** Sums watts minute by minute; they are made watt-hours at the end. */
export function account(sums: Energy, now: Minute, sunW: number): void {
  sums.served += now.loadW * now.served;
  sums.unserved += now.wantedW - now.loadW * now.served;
  sums.sunDc += now.sunDcW;
  sums.sunAc += now.sunAcW;
  sums.curtailed += sunW - now.sunDcW - now.sunAcW;
  sums.generator += now.generatorW;
  sums.losses += now.lossW;
  sums.idle += now.idleW;
  sums.battery += now.batteryW;
}

export const inWattHours = (sums: Energy): Energy => ({
  served: sums.served / HOUR,
  unserved: sums.unserved / HOUR,
  sunDc: sums.sunDc / HOUR,
  sunAc: sums.sunAc / HOUR,
  curtailed: sums.curtailed / HOUR,
  generator: sums.generator / HOUR,
  losses: sums.losses / HOUR,
  idle: sums.idle / HOUR,
  battery: sums.battery / HOUR,
});

export const noEnergy = (): Energy => ({
  served: 0,
  unserved: 0,
  sunDc: 0,
  sunAc: 0,
  curtailed: 0,
  generator: 0,
  losses: 0,
  idle: 0,
  battery: 0,
});

/** A minute before anything is worked out of it. */
export function clear(now: Minute, soc: number): void {
  now.soc = soc;
  now.sunDcW = 0;
  now.sunAcW = 0;
  now.generatorW = 0;
  now.batteryW = 0;
  now.lossW = 0;
  now.idleW = 0;
}

export const noMinute = (): Minute => ({
  soc: 0,
  wantedW: 0,
  loadW: 0,
  served: 0,
  sunDcW: 0,
  sunAcW: 0,
  generatorW: 0,
  batteryW: 0,
  lossW: 0,
  idleW: 0,
  boards: 0,
});
