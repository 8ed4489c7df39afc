import type { Analysis } from '../checks/analyse.ts';
import { isSameSubject } from '../checks/finding.ts';
import { bankSubject } from '../checks/support/subjects.ts';
import { bankOfSet } from '../figures/bank/ofSet.ts';
import type { CompiledStack } from '../installation/installation.ts';
import { isOwnBank } from '../installation/ownBank.ts';
import { walkOf } from '../modes/walk.ts';
import { all, field } from '../values/known.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import { aroundSpec, confirmation, missingWords } from './specs.ts';

/** The load that a direction test switches on, W: enough that nothing else hides it. */
const KNOWN_LOAD_W = 2000;
/** How near the rise has to come to it. */
const NEAR = 0.1;

/** Each sensor by a known load on its line: the import there rises by that amount, and on no other line. */
function sensorReadings({ installation }: Analysis): ReadingSpec[] {
  return installation.instruments
    .filter(({ instrument }) => instrument.kind === 'sensor' || instrument.line === undefined)
    .map(({ instrument }): ReadingSpec => ({
      id: `direction-${instrument.id}`,
      label: `Rise of import${instrument.line === undefined ? '' : ` on ${instrument.line}`} with a known load of ${KNOWN_LOAD_W} W`,
      unit: 'W',
      kind: 'number',
      instrument: 'display of the inverter',
      nominal: KNOWN_LOAD_W,
      expected: { low: KNOWN_LOAD_W * (1 - NEAR), high: KNOWN_LOAD_W * (1 + NEAR) },
      missing: [],
    }));
}

/**
 * Charging of a bank that several modules share: what flows into it, I = min(n · I_set, n · P_grid · η / U), and how far a module is from
 * the mean, held against the limit of its sharing.
 */
function chargeReadings({ installation, findings }: Analysis, compiled: CompiledStack): ReadingSpec[] {
  const { defaults } = installation;
  const { stack, type } = compiled;
  const bank = bankOfSet(compiled);
  if (!bank.known || bank.value === 'none' || isOwnBank(stack)) return [];
  const { nominalV, parallelCount } = bank.value;
  const count = stack.units.length;
  // By its number: a set that is renamed has nothing to test again.
  const { stacks } = installation;
  const which = stacks.length > 1 ? ` of set ${stacks.indexOf(compiled) + 1}` : '';
  const given = all({
    setA: field(stack.chargeCurrentA, 'stacks', stack.id, 'chargeCurrentA'),
    gridW: field(stack.gridChargeW, 'stacks', stack.id, 'gridChargeW'),
    type,
  });
  const current = {
    id: `charge-current-${stack.id}`,
    label: `Charging current of the bank${which}`,
    unit: 'A',
    instrument: 'DC clamp meter',
  };
  const sharing = findings.find(
    ({ check, mode, subject }) =>
      check === 'bank.sharing' && mode === 'island' && isSameSubject(subject, bankSubject(compiled)),
  );
  return [
    given.known
      ? aroundSpec(
          current,
          count * Math.min(given.value.setA, (given.value.gridW * given.value.type.efficiency) / nominalV),
          defaults.batteryCurrentTolerance.value,
        )
      : { ...current, kind: 'number', missing: missingWords(installation, given.missing) },
    ...(parallelCount < 2
      ? []
      : [
          {
            id: `module-share-${stack.id}`,
            label: `Module${which} furthest from the mean of all`,
            unit: '%',
            kind: 'number' as const,
            instrument: 'DC clamp meter on each module',
            ...(sharing?.value === undefined ? {} : { nominal: 100 * sharing.value }),
            expected: { low: 0, high: 100 * defaults.shareLimit.value },
            missing: [],
          },
        ]),
  ];
}

function chargeWords(readings: readonly ReadingSpec[]): string[] {
  if (readings.length === 0) return ['Charge for ten minutes.'];
  const shares = readings.some(({ unit }) => unit === '%');
  return [
    'With the bank less than nine tenths full charge for ten minutes, then read what flows into it.',
    ...(shares
      ? ['Clamp each module: how far is the one furthest from the mean of all, as a share of that mean?']
      : []),
  ];
}

/** What has to hold while everything runs on the grid, before the grid is taken away. */
export function liveSteps(analysis: Analysis): ProcedureStep[] {
  const { installation } = analysis;
  if (installation.site.grid === 'none' || installation.stacks.length === 0) return [];
  const walk = walkOf(installation);
  const facts = walk.known ? walk.value.get('on-grid') : undefined;
  const bonds = facts?.neutrals.map(({ bonds: own }) => own.length) ?? [];
  const sensors = sensorReadings(analysis);
  const charging = installation.stacks.flatMap((compiled) => chargeReadings(analysis, compiled));
  return [
    {
      id: 'live-on-grid',
      section: 'live',
      title: 'Running on the grid',
      instructions: [
        'Close the load breakers of the backed-up boards one by one and watch each load come on.',
        ...(sensors.length === 0
          ? []
          : [
              'Prove every sensor: switch a known load on its line on. A fall means its arrow points the wrong way; a rise on another line means it sits on the wrong one.',
            ]),
        ...(bonds.length === 0
          ? []
          : [
              `Neutral and earth are joined at ${Math.max(...bonds)} place on the live neutral: see the mode matrix.`,
            ]),
        ...chargeWords(charging),
      ],
      cautions: ['Loads that hurt when they start by themselves are switched off at the load first.'],
      readings: [
        ...sensors,
        ...charging,
        confirmation('count-read', 'Every unit and every module is counted on the display'),
        confirmation('charging', 'The battery charges, and no module stays behind'),
        confirmation('clock', 'Date and time are right on every device'),
      ],
    },
  ];
}
