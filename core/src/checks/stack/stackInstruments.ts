import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding } from '../check.ts';
import type { Finding, Subject } from '../finding.ts';
import { rulingSentences } from '../support/reasons.ts';

type Instrument = CheckContext['installation']['instruments'][number];

const ARROW_WORDS = { 'to-building': 'to the building', 'to-source': 'to the grid or inverter' } as const;

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
  ];
  return judge(stackInstruments.id, context, {
    subject,
    value: reasons.length,
    limit: 0,
    unit: '',
    graded: false,
    missing,
    data: { reason: reasons.join('; '), kept: 'place, arrow, ratio and rating are as its type wants them' },
    working: () => ({
      ...NO_WORKING,
      source: 'Place, arrow, ratio and rating held against the type and its label.',
      notes: reasons,
    }),
  });
}

/** Meters and sensors that inverters read by themselves: place, arrow, ratio and rating. */
export const stackInstruments: Check<'stack.instruments'> = {
  id: 'stack.instruments',
  title: 'Meters and sensors',
  family: 'stack',
  modes: 'once',
  sentences: rulingSentences('it'),
  run: (context) => context.installation.instruments.map((one) => look(context, one)),
};
