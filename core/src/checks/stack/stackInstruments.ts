import { coreAreaMm2 } from '../../codes/coreAreas.ts';
import { cableLines } from '../../figures/wiring/cableLines.ts';
import { GRID } from '../../installation/build/service.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding } from '../check.ts';
import type { Finding, Subject } from '../finding.ts';
import { rulingSentences } from '../support/reasons.ts';

type Instrument = CheckContext['installation']['instruments'][number];

const ARROW_WORDS = { 'to-building': 'to the building', 'to-source': 'to the grid or inverter' } as const;

/** Outside diameter of one core of the cable that comes from the grid, mm; undefined while its size is not stated, or no table has it. */
function serviceCoreMm(installation: CheckContext['installation']): number | undefined {
  const { codeProfile } = installation.site;
  const lines = cableLines(installation);
  const service = lines.known
    ? lines.value.find(({ ends }) => ends.some(({ partId }) => partId === GRID))
    : undefined;
  if (codeProfile === undefined || service?.areaMm2.known !== true) return undefined;
  const areaMm2 = coreAreaMm2(codeProfile, service.areaMm2.value);
  return areaMm2 && Math.sqrt((4 / Math.PI) * areaMm2);
}

/** A sensor that does not close around the core it is to be clipped on, in words. */
function openingReason(
  installation: CheckContext['installation'],
  at: Instrument['instrument']['at'],
  openingMm: number | undefined,
): string[] {
  const coreMm = at === 'service' && openingMm !== undefined ? serviceCoreMm(installation) : undefined;
  return openingMm === undefined || coreMm === undefined || coreMm <= openingMm
    ? []
    : [`its opening of ${openingMm} mm does not close around a core of ${coreMm.toFixed(1)} mm`];
}

function look(context: CheckContext, { instrument, type }: Instrument): Finding {
  const { site, supply } = context.installation;
  const path = ['instruments', instrument.id];
  const label = instrument.name ?? (instrument.kind === 'sensor' ? 'Sensor' : 'Meter');
  const subject: Subject = {
    kind: 'part',
    id: `instrument ${instrument.id}`,
    label: instrument.line === undefined ? label : `${label} on ${instrument.line}`,
    ...(instrument.readBy === undefined ? {} : { about: [{ kind: 'stack', id: instrument.readBy }] }),
  };
  const isSensor = instrument.kind === 'sensor';
  const missing = [
    ...(type.known ? [] : type.missing),
    ...(instrument.at === undefined ? [[...path, 'at']] : []),
    ...(instrument.readBy === undefined ? [[...path, 'readBy']] : []),
    ...(isSensor && instrument.arrow === undefined ? [[...path, 'arrow']] : []),
    ...(isSensor && instrument.ratio === undefined ? [[...path, 'ratio']] : []),
    ...(isSensor && instrument.line === undefined && supply.known && supply.value.lines.length > 1
      ? [[...path, 'line']]
      : []),
  ];
  if (!type.known) return unknownFinding(stackInstruments.id, context, subject, '', missing);
  const of = type.value;
  const reasons = [
    ...(instrument.at === 'backed-up-board' || instrument.at === 'grid-port'
      ? ['it does not see all that the building takes: it belongs at the service']
      : []),
    ...(of.kind === 'sensor' && instrument.arrow !== undefined && instrument.arrow !== of.arrow
      ? [`its arrow points ${ARROW_WORDS[instrument.arrow]}, where its type wants ${ARROW_WORDS[of.arrow]}`]
      : []),
    ...(of.kind === 'sensor' && instrument.ratio !== undefined && instrument.ratio !== of.ratio
      ? [`the settings say ${instrument.ratio}, its label ${of.ratio}`]
      : []),
    ...(of.kind === 'sensor' && site.serviceRatingA !== undefined && of.ratedA < site.serviceRatingA
      ? [`it is made for ${of.ratedA} A on a service of ${site.serviceRatingA} A`]
      : []),
    ...(of.kind === 'sensor' ? openingReason(context.installation, instrument.at, of.openingMm) : []),
  ];
  return judge(stackInstruments.id, context, {
    subject,
    value: reasons.length,
    limit: 0,
    unit: '',
    graded: false,
    missing,
    data: {
      reason: reasons.join('; '),
      kept: 'place, arrow, ratio, rating and opening are as its type wants them',
    },
    working: () => ({
      ...NO_WORKING,
      source:
        'Place, arrow, ratio, rating and opening held against the type, its label and the cable of the service.',
      notes: reasons,
    }),
  });
}

/** Meters and sensors that inverters read by themselves: place, arrow, ratio, rating and opening. */
export const stackInstruments: Check<'stack.instruments'> = {
  id: 'stack.instruments',
  title: 'Meters and sensors',
  family: 'stack',
  modes: 'once',
  sentences: rulingSentences('it'),
  run: (context) => context.installation.instruments.map((one) => look(context, one)),
};
