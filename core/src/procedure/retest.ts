import type { Path } from '../values/problem.ts';
import type { Procedure, ProcedureStep } from './schema.ts';

/** A step that a change asks to be tested again, and why. */
export interface Retest {
  readonly step: ProcedureStep;
  readonly why: string;
}

/** What of a design is touched, and the steps that rest on it, by the beginnings of their ids; `*` stands for any one name. */
interface Rule {
  readonly touched: readonly string[];
  readonly steps: readonly string[];
  readonly why: string;
}

/** Steps that begin with what is empty: all of them. */
const ALL = [''] as const;
const BANK_STEPS = [
  'wake-',
  'battery-on-',
  'live-on-grid',
  'load-',
  'start-',
  'black-start-',
  'endurance-',
] as const;
const BOND_STEPS = ['bonds', 'island-', 'return-'] as const;

/** The first rule that fits counts: what is more particular stands before what is more general. */
const RULES: readonly Rule[] = [
  { touched: ['stacks', '*', 'name'], steps: [], why: '' },
  {
    touched: ['stacks', '*', 'units', '*', 'firmware'],
    steps: ['firmware-', 'settings-', 'self-check-', 'live-on-grid', 'island-', 'return-'],
    why: 'its firmware was changed',
  },
  { touched: ['stacks', '*', 'units', '*', 'serial'], steps: ALL, why: 'a unit was replaced' },
  { touched: ['stacks', '*', 'units'], steps: ALL, why: 'a unit was changed' },
  ...['reserveSoc', 'cutoffSoc'].map((level): Rule => ({
    touched: ['stacks', '*', 'bank', level],
    steps: ['settings-', 'shed-', 'endurance-'],
    why: 'a level of charge was changed',
  })),
  {
    touched: ['stacks', '*', 'bank', 'comms'],
    steps: ['wake-', 'inverter-on-', 'live-on-grid'],
    why: 'the comms of the bank were changed',
  },
  { touched: ['stacks', '*', 'bank'], steps: BANK_STEPS, why: 'the bank was changed' },
  {
    touched: ['stacks', '*', 'busLinks'],
    steps: ['inverter-on-', 'live-on-grid', 'island-', 'loss-'],
    why: 'the parallel bus was changed',
  },
  { touched: ['stacks', '*', 'inverterTypeId'], steps: ALL, why: 'the inverters are of another type' },
  { touched: ['stacks', '*', 'arrangement'], steps: ALL, why: 'the set is arranged otherwise' },
  {
    touched: ['stacks', '*', 'neutralEarthRelay'],
    steps: BOND_STEPS,
    why: 'the neutral–earth relay was changed',
  },
  { touched: ['stacks', '*', 'relayKit'], steps: BOND_STEPS, why: 'the neutral–earth relay was changed' },
  {
    touched: ['stacks', '*', 'transferDeviceTypeId'],
    steps: BOND_STEPS,
    why: 'the transfer device was changed',
  },
  {
    touched: ['stacks', '*', 'chargeCurrentA'],
    steps: ['settings-', 'live-on-grid', 'generator-'],
    why: 'the charge setting was changed',
  },
  {
    touched: ['stacks', '*', 'gridChargeW'],
    steps: ['settings-', 'live-on-grid'],
    why: 'charging from the grid was changed',
  },
  {
    touched: ['stacks', '*', 'generatorChargeW'],
    steps: ['settings-', 'generator-'],
    why: 'charging from the generator was changed',
  },
  { touched: ['stacks'], steps: ALL, why: 'the set was changed' },
  { touched: ['generators', '*', 'name'], steps: [], why: '' },
  { touched: ['generators', '*', 'fuelL'], steps: [], why: '' },
  { touched: ['generators'], steps: ['generator-', 'bonds'], why: 'the generator was changed' },
  { touched: ['arrays', '*', 'name'], steps: [], why: '' },
  { touched: ['arrays'], steps: ['pv-on-', 'held-back-', 'rapid-shutdown-'], why: 'the arrays were changed' },
  {
    touched: ['partitions', '*', 'neutralEarthLink'],
    steps: BOND_STEPS,
    why: 'a neutral–earth link was changed',
  },
  { touched: ['partitions', '*', 'name'], steps: [], why: '' },
  {
    touched: ['partitions'],
    steps: ['island-', 'dark-', 'bonds', 'shed-', 'start-', 'pickup-'],
    why: 'boards or stages were changed',
  },
  { touched: ['instruments'], steps: ['live-on-grid', 'controller-'], why: 'meters or sensors were changed' },
  { touched: ['controllers'], steps: ['live-on-grid', 'controller-'], why: 'the controller was changed' },
  { touched: ['devices'], steps: ['bonds'], why: 'protective devices were changed' },
  { touched: ['earthPoints'], steps: ['bonds'], why: 'earthing was changed' },
  { touched: ['circuits', '*', 'device'], steps: ['bonds'], why: 'the device of a circuit was changed' },
  {
    touched: ['circuits', '*', 'lines'],
    steps: ['island-', 'dark-', 'start-', 'pickup-'],
    why: 'a circuit is on other lines',
  },
  {
    touched: ['circuits', '*', 'partitionId'],
    steps: ['island-', 'dark-', 'start-', 'pickup-', 'bonds'],
    why: 'a circuit is on another board',
  },
  { touched: ['circuits', '*', 'name'], steps: [], why: '' },
  { touched: ['circuits', '*', 'note'], steps: [], why: '' },
  { touched: ['circuits', '*', 'clampReadings'], steps: [], why: '' },
  { touched: ['circuits', '*', 'cable'], steps: [], why: '' },
  { touched: ['circuits', '*', 'items', '*', 'name'], steps: [], why: '' },
  {
    touched: ['circuits', '*', 'items', '*', 'longestInterruptionMs'],
    steps: ['island-'],
    why: 'a load bears another gap',
  },
  { touched: ['circuits'], steps: ['start-', 'pickup-', 'endurance-'], why: 'loads were changed' },
  // A type that joins the job touches nothing by itself; figures of one that is there may mean anything.
  { touched: ['types', '*', '*'], steps: ALL, why: 'a type in use was changed' },
  { touched: ['wiring'], steps: [], why: '' },
  { touched: ['place'], steps: [], why: '' },
  { touched: ['site', 'maintenanceBypass'], steps: ['bonds'], why: 'the bypass was changed' },
  { touched: ['site'], steps: [], why: '' },
  // What says how a job stands, and limits that are asked of it: their figures show in the steps themselves.
  ...[
    'name',
    'accepted',
    'firstValues',
    'delivery',
    'faultSearches',
    'meters',
    'startCases',
    'defaults',
    'tableValues',
    'types',
  ].map((head): Rule => ({ touched: [head], steps: [], why: '' })),
];

const fits = ({ touched }: Rule, path: Path): boolean =>
  touched.length <= path.length && touched.every((part, at) => part === '*' || part === String(path[at]));

/** Whether a step is about a set; a step that names no set is about all. */
function isAbout(stepId: string, path: Path, stackIds: readonly string[]): boolean {
  if (path[0] !== 'stacks' || path[1] === undefined) return true;
  const own = stackIds.filter((id) => `${stepId}-`.includes(`-${id}-`));
  return own.length === 0 || own.includes(String(path[1]));
}

/** What a step asks and expects. Its title and instructions are left out: a new name of a set is no new test. */
const demandOf = ({ readings }: ProcedureStep): string =>
  JSON.stringify(
    readings.map(({ id, label, nominal, expected, abort, missing }) => [
      id,
      label,
      nominal,
      expected,
      abort,
      missing,
    ]),
  );

/**
 * The steps that are proposed for a partial retest: those that are new, that expect something else than before, or that rest on what the
 * change touched. The gates are not among them: they come before any retest. A place that no rule knows asks for everything.
 *
 * @param touched places of the design that differ
 * @param stackIds the sets of the design, by id
 */
export function retestAfter(
  before: Procedure,
  after: Procedure,
  touched: readonly Path[],
  stackIds: readonly string[],
): Retest[] {
  const earlier = new Map(before.steps.map((step) => [step.id, step]));
  return after.steps.flatMap((step): Retest[] => {
    if (step.section === 'gates') return [];
    const was = earlier.get(step.id);
    if (was === undefined) return [{ step, why: 'it was not part of that test' }];
    if (demandOf(was) !== demandOf(step)) return [{ step, why: 'it expects other figures now' }];
    for (const path of touched) {
      const rule = RULES.find((one) => fits(one, path));
      if (rule === undefined) return [{ step, why: 'what was changed may touch everything' }];
      if (rule.steps.some((start) => step.id.startsWith(start)) && isAbout(step.id, path, stackIds))
        return [{ step, why: rule.why }];
    }
    return [];
  });
}

/** A procedure of some of its steps, after all of its gates: what is retested is made safe first like the whole. */
export function partOf(
  procedure: Procedure,
  stepIds: ReadonlySet<string>,
  of: { readonly run: number; readonly revision: number },
): Procedure {
  const steps = procedure.steps.filter(({ id, section }) => section === 'gates' || stepIds.has(id));
  return { ...procedure, steps, retest: { ...of, leftOut: procedure.steps.length - steps.length } };
}
