import type { Installation } from '../installation/installation.ts';
import { imbalanceTest } from './imbalance.ts';
import type { ProcedureStep } from './schema.ts';

/** What a whole test would have besides, and why this design does not need it. */
export interface LeftOutStep {
  readonly what: string;
  readonly why: string;
}

interface Rule extends LeftOutStep {
  /** Beginnings of the ids of the steps that it is about. */
  readonly ids: readonly string[];
  readonly isNeedless: (installation: Installation) => boolean;
}

const RULES: readonly Rule[] = [
  {
    what: 'Grid return and running on the grid',
    ids: ['return-'],
    why: 'the site has no grid',
    isNeedless: ({ site }) => site.grid === 'none',
  },
  {
    what: 'Generator: start, warm-up, transfer, charging, return',
    ids: ['generator-'],
    why: 'no generator is planned',
    isNeedless: ({ generators }) => generators.length === 0,
  },
  {
    what: 'PV strings',
    ids: ['gate-strings', 'pv-on-'],
    why: 'no string is plugged into an inverter',
    isNeedless: ({ arrays }) => !arrays.some(({ array }) => array.coupling === 'dc'),
  },
  {
    what: 'AC power held back in island and let go',
    ids: ['held-back-'],
    why: 'no PV is coupled on the AC side',
    isNeedless: ({ arrays }) => !arrays.some(({ array }) => array.coupling === 'ac'),
  },
  {
    what: 'Rapid shutdown',
    ids: ['rapid-shutdown-'],
    why: 'no array has it fitted',
    isNeedless: ({ arrays }) => !arrays.some(({ array }) => array.rapidShutdown === 'fitted'),
  },
  {
    what: 'Worst imbalance',
    ids: ['imbalance-'],
    why: 'the load steps load each line alone: nothing is more uneven',
    isNeedless: (installation) =>
      installation.stacks.some((set) => imbalanceTest(installation, set) === 'by the load steps'),
  },
  {
    what: 'Shed stages',
    ids: ['shed-'],
    why: 'no board is shed',
    isNeedless: ({ partitions }) => !partitions.some(({ kind }) => kind === 'shed'),
  },
  {
    what: 'Loss of a unit',
    ids: ['loss-'],
    why: 'the job says that the loss of a unit need not be survived',
    isNeedless: ({ site }) => site.surviveUnitLoss === 'no',
  },
  {
    what: 'Loss of a unit',
    ids: ['loss-'],
    why: 'nobody has decided whether the loss of a unit must be survived: decide it on the page of the site',
    isNeedless: ({ site, stacks }) =>
      site.surviveUnitLoss === undefined && stacks.some(({ stack }) => stack.units.length > 1),
  },
  {
    what: 'Commissioning of a controller',
    ids: ['controller-'],
    why: 'there is no controller over the sets',
    isNeedless: ({ controllers }) => controllers.length === 0,
  },
];

/** Steps that the design makes needless, each with its reason: nobody should have to wonder whether they were forgotten. */
export function leftOutSteps(installation: Installation, steps: readonly ProcedureStep[]): LeftOutStep[] {
  return RULES.flatMap(({ what, why, ids, isNeedless }) => {
    const isThere = steps.some(({ id }) => ids.some((start) => id.startsWith(start)));
    return !isThere && isNeedless(installation) ? [{ what, why }] : [];
  });
}
