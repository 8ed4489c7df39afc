import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, forget, item1, threePhase } from '../../testkit/designs.ts';
import { bankSag } from './bankSag.ts';

const start = (design: Parameters<typeof item1>[0], multiple: number): void =>
  void Object.assign(item1(design), { startMultiple: multiple, startDurationS: 2, startPowerFactor: 1 });

checkTable(bankSag, [
  {
    // One module: R = 13.612 mΩ. 6900 / 0.94 = 7340.4 W: I = (51.2 − √(51.2² − 4 · 0.0136122 · 7340.4)) / 0.0272244 = 149.3 A
    // U = 51.2 − 149.3 · 0.0136122 = 49.17 V
    name: 'one module giving 7340 W: 51.2 − 149.3 · 13.61 mΩ = 49.17 V over the trip at 44 V',
    edit: (design) => {
      start(design, 3);
      bank1(design).modules = [{ id: 'm1' }];
    },
    state: 'within',
    value: 49.17,
    limit: 44,
  },
  {
    // At 90 % it rests at 53.3 V; it is nearly empty some day all the same: the same 49.17 V.
    name: 'a state of charge as it is found today leaves the start near empty where it is',
    edit: (design) => {
      start(design, 3);
      bank1(design).modules = [{ id: 'm1', stateOfCharge: 0.9 }];
    },
    state: 'within',
    value: 49.17,
  },
  {
    // 23000 / 0.94 = 24468 W: √(2621.44 − 1332.26) = 35.905; I = 561.8 A; U = 43.55 V
    name: 'ten times the running load: 43.55 V, below the trip',
    edit: (design) => {
      start(design, 10);
      bank1(design).modules = [{ id: 'm1' }];
    },
    state: 'over',
    value: 43.55,
  },
  {
    // Three units, the start on L1 alone: 6900 / 0.94 = 7340.4 W through one unit's lead, not a third of it through each.
    // Four modules of 13.263 mΩ side by side and 1.612 mΩ: 4.928 mΩ; I = (51.2 − √(2621.44 − 144.7)) / 0.009856 = 145.4 A;
    // U = 51.2 − 145.4 · 4.928 mΩ = 50.48 V
    name: 'a start on one line goes through the inverter of that line: 50.5 V there',
    edit: (design) => {
      threePhase(design, [1, 1, 1]);
      start(design, 3);
    },
    state: 'within',
    value: 50.48,
    says: 'inverter 1',
  },
  {
    name: 'more than 51.2² / (4 · 13.6122 mΩ) = 48145 W: the bank cannot give it, and that is told apart',
    edit: (design) => {
      start(design, 20);
      item1(design).quantity = 1;
      item1(design).runningW = 4600;
      bank1(design).modules = [{ id: 'm1' }];
    },
    state: 'nothing',
  },
  {
    name: 'inverter lead not known',
    edit: (design) => forget(bank1(design), 'inverterLead'),
    state: 'unknown',
    missing: 'stacks/s/bank/inverterLead',
  },
  {
    // Resting at 5 % charge: 46.4 + 0.5 · 4.8 = 48.8 V. √(48.8² − 4 · 0.0136122 · 7340.4) = 44.517; I = (48.8 − 44.517) / 0.0272244 =
    // 157.3 A; U = 48.8 − 157.3 · 0.0136122 = 46.66 V
    name: 'a bank that may be emptied to 5 % starts it from 48.8 V, not from its nominal 51.2',
    edit: (design) => {
      start(design, 3);
      bank1(design).modules = [{ id: 'm1' }];
      bank1(design).cutoffSoc = 0.05;
      design.types = SAMPLE_TYPES.filter((type) => type.id === 'lfp-51v-100ah').map((type) => ({
        ...type,
        usableFraction: 1,
      }));
    },
    state: 'within',
    value: 46.66,
  },
  {
    // Two units on L1, one of them lost: the other's lead carries all 7340.4 W, as if it had always been alone.
    name: 'with a unit lost the other sees all of the start: 50.48 V again',
    edit: (design) => {
      threePhase(design, [2, 1, 1]);
      start(design, 3);
    },
    mode: 'unit-lost:s/L1-1',
    state: 'within',
    value: 50.48,
    says: 'inverter 2',
  },
  {
    name: 'how far the bank may be emptied is not known',
    edit: (design) => {
      start(design, 3);
      forget(bank1(design), 'cutoffSoc');
    },
    state: 'unknown',
    missing: 'stacks/s/bank/cutoffSoc',
  },
  {
    name: 'a type without a resting curve',
    edit: (design) => {
      start(design, 3);
      design.types = SAMPLE_TYPES.filter((type) => type.id === 'lfp-51v-100ah').map((type) => ({ ...type }));
      for (const type of design.types) Reflect.deleteProperty(type, 'openCircuit');
    },
    state: 'unknown',
    missing: 'types/lfp-51v-100ah/openCircuit',
  },
]);
