import type { MeterType } from '../../catalogue/partTypes.ts';
import { coreAreaMm2 } from '../../codes/coreAreas.ts';
import { cableLines } from '../../figures/wiring/cableLines.ts';
import { GRID } from '../../installation/build/service.ts';
import { all, field, type Known, known, unknownAt } from '../../values/known.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { rulingSentences } from '../support/reasons.ts';

const ARROW_WORDS = { 'to-building': 'to the building', 'to-source': 'to the grid or inverter' } as const;

type Instrument = CheckContext['installation']['instruments'][number];

/** Outside diameter of one core of the cable that comes from the grid, mm: what a sensor at the service closes around. */
function serviceCoreMm(installation: CheckContext['installation']): Known<number> {
  const { codeProfile } = installation.site;
  const lines = cableLines(installation);
  if (!lines.known) return lines;
  const service = lines.value.find(({ ends }) => ends.some(({ partId }) => partId === GRID));
  const given = all({
    profile: field(codeProfile, 'site', 'codeProfile'),
    areaMm2: service?.areaMm2 ?? unknownAt(['site', 'supply']),
  });
  if (!given.known) return given;
  const coreMm2 = coreAreaMm2(given.value.profile, given.value.areaMm2);
  // A size that no table of cores has is as good as none.
  return coreMm2 === undefined
    ? unknownAt(service?.areaPath ?? [])
    : known(Math.sqrt((4 / Math.PI) * coreMm2));
}

/** What a sensor and the cable that it is clipped on come to; nothing elsewhere than at the service, where nobody knows around what. */
function openingOf(
  installation: CheckContext['installation'],
  { instrument, type }: Instrument,
): Known<{ readonly openingMm: number; readonly coreMm: number }> | undefined {
  if (!type.known || type.value.kind !== 'sensor' || instrument.at !== 'service') return undefined;
  const { id, openingMm } = type.value;
  return all({
    openingMm: field(openingMm, 'types', id, 'openingMm'),
    coreMm: serviceCoreMm(installation),
  });
}

/** Whether another sensor looks at the same line from the same place for the same reader: one of the two is on the wrong line. */
const isDoubled = ({ instruments }: CheckContext['installation'], { instrument }: Instrument): boolean =>
  instrument.kind === 'sensor' &&
  instrument.line !== undefined &&
  instruments.some(
    ({ instrument: other }) =>
      other.id !== instrument.id &&
      other.kind === 'sensor' &&
      (['line', 'at', 'readBy', 'readByUnitId', 'meterId'] as const).every(
        (key) => other[key] === instrument[key],
      ),
  );

/** Lines of the supply that a meter has sensor terminals for, and on which none of the sensors wired to it is; none while none is wired to it. */
function linesWithout(
  { instruments, supply }: CheckContext['installation'],
  meterId: string,
  { marks = [] }: MeterType,
): readonly string[] {
  const wired = instruments.filter(({ instrument }) => instrument.meterId === meterId);
  if (wired.length === 0 || !supply.known || wired.some(({ instrument }) => instrument.line === undefined))
    return [];
  return supply.value.lines.filter(
    (line) =>
      marks.some(({ takes }) => takes === `sensor-${line}`) &&
      !wired.some(({ instrument }) => instrument.line === line),
  );
}

function look(context: CheckContext, one: Instrument): Found<'kept' | 'reason'> {
  const { instrument, type } = one;
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
  const opening = openingOf(context.installation, one);
  const missing = [
    ...(type.known ? [] : type.missing),
    ...(opening === undefined || opening.known ? [] : opening.missing),
    ...(isSensor && site.serviceRatingA === undefined && site.grid !== 'none'
      ? [['site', 'serviceRatingA']]
      : []),
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
    ...(site.instruments === 'not-needed' ? ['it is listed, and somebody has said that none is needed'] : []),
    ...(instrument.at === 'backed-up-board' || instrument.at === 'grid-port'
      ? ['it does not see all that the building takes: it belongs at the service']
      : []),
    ...(isDoubled(context.installation, one)
      ? [`another sensor is on ${instrument.line ?? 'its line'} for the same reader`]
      : []),
    ...(of.kind === 'meter' ? linesWithout(context.installation, instrument.id, of) : []).map(
      (line) => `no sensor of it is on ${line}`,
    ),
    ...(of.kind === 'sensor' && instrument.arrow !== undefined && instrument.arrow !== of.arrow
      ? [`its arrow points ${ARROW_WORDS[instrument.arrow]}, where its type wants ${ARROW_WORDS[of.arrow]}`]
      : []),
    ...(of.kind === 'sensor' && instrument.ratio !== undefined && instrument.ratio !== of.ratio
      ? [`the settings say ${instrument.ratio}, its label ${of.ratio}`]
      : []),
    ...(of.kind === 'sensor' && site.serviceRatingA !== undefined && of.ratedA < site.serviceRatingA
      ? [`it is made for ${of.ratedA} A on a service of ${site.serviceRatingA} A`]
      : []),
    ...(opening?.known === true && opening.value.coreMm > opening.value.openingMm
      ? [
          `its opening of ${opening.value.openingMm} mm does not close around a core of ${opening.value.coreMm.toFixed(1)} mm`,
        ]
      : []),
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
      kept: isSensor
        ? `place, arrow, ratio${opening === undefined ? ' and rating' : ', rating and opening'} are as its type wants them`
        : 'nothing stands against its place',
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
export const stackInstruments: Check<'stack.instruments'> = checkOf({
  id: 'stack.instruments',
  title: 'Meters and sensors',
  family: 'stack',
  modes: 'once',
  sentences: rulingSentences('it'),
  run: (context) => context.installation.instruments.map((one) => look(context, one)),
});
