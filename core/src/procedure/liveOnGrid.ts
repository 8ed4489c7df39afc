import type { Analysis } from '../checks/analyse.ts';
import { walkOf } from '../modes/walk.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import { confirmation } from './specs.ts';

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

/** What has to hold while everything runs on the grid, before the grid is taken away. */
export function liveSteps(analysis: Analysis): ProcedureStep[] {
  const { installation } = analysis;
  if (installation.site.grid === 'none' || installation.stacks.length === 0) return [];
  const walk = walkOf(installation);
  const facts = walk.known ? walk.value.get('on-grid') : undefined;
  const bonds = facts?.neutrals.map(({ bonds: own }) => own.length) ?? [];
  const sensors = sensorReadings(analysis);
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
        'Charge for ten minutes and read how the modules share.',
      ],
      cautions: ['Loads that hurt when they start by themselves are switched off at the load first.'],
      readings: [
        ...sensors,
        confirmation('count-read', 'Every unit and every module is counted on the display'),
        confirmation('charging', 'The battery charges at the set current, and its modules share it'),
        confirmation('clock', 'Date and time are right on every device'),
      ],
    },
  ];
}
