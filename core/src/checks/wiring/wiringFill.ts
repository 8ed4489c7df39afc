import { linesById } from '../../figures/wiring/cableLines.ts';
import { inConduits } from '../../figures/wiring/conduits.ts';
import { passageFigure, type PassageFigure } from '../../figures/wiring/passages.ts';
import { all } from '../../values/known.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { entryOf } from '../support/entries.ts';
import { onNetwork, refsOf, troubleOrOne, WHOLE } from '../support/network.ts';

function subjectOf(context: CheckContext, { passage, lines }: PassageFigure): Subject {
  const { network } = context.installation;
  const ids = lines.flatMap(({ ends }) => ends.map(({ partId }) => partId));
  return {
    kind: 'part',
    id: `passage ${passage.id}`,
    label: passage.name.charAt(0).toUpperCase() + passage.name.slice(1),
    about: network.known ? refsOf(network.value, ids) : [],
  };
}

function told(
  context: CheckContext,
  figure: PassageFigure,
  given: {
    readonly value: number;
    readonly limit: number;
    readonly unit: string;
    readonly does: string;
    readonly and: string;
    readonly source: string;
    readonly bound?: 'at-least';
  },
): Found<'and' | 'does'> {
  const { value, limit, unit, does, and, source, bound } = given;
  return judge(wiringFill.id, context, {
    subject: subjectOf(context, figure),
    value,
    limit,
    unit,
    ...(bound === undefined ? {} : { bound }),
    graded: false,
    data: { does, and },
    working: () => ({
      ...NO_WORKING,
      inputs: [
        {
          label: 'Inside',
          path: ['wiring', 'passages', figure.passage.id, 'innerMm'],
          value: figure.passage.innerMm,
          unit: 'mm',
        },
      ],
      source,
    }),
  });
}

/** Fill of a conduit: outside areas of what lies in it over the area inside. */
function conduit(context: CheckContext, figure: PassageFigure): Found<'and' | 'does'> {
  const given = all({ fill: figure.fill, limit: figure.fillLimit });
  if (!given.known)
    return unknownFinding(wiringFill.id, context, subjectOf(context, figure), 'fraction', given.missing);
  return told(context, figure, {
    value: given.value.fill,
    limit: given.value.limit,
    unit: 'fraction',
    does: 'is filled',
    and: 'and may be filled',
    source: 'Σ outside areas / (π/4 · d²): 45 %, or 53, 31 and 40 % for one, two and more.',
  });
}

/** Diameters that a gland seals on. */
function gland(context: CheckContext, figure: PassageFigure): Found<'and' | 'does'>[] {
  const { passage } = figure;
  const given = all({ most: figure.thickestMm, least: figure.thinnestMm });
  const missing = [
    ...(given.known ? [] : given.missing),
    ...(passage.innerMm === undefined ? [['wiring', 'passages', passage.id, 'innerMm']] : []),
  ];
  if (!given.known || passage.innerMm === undefined)
    return [unknownFinding(wiringFill.id, context, subjectOf(context, figure), 'mm', missing)];
  const source = 'Clamping range of the gland against the outside diameters of its cables.';
  const { most, least } = given.value;
  return [
    told(context, figure, {
      value: most,
      limit: passage.innerMm,
      unit: 'mm',
      does: 'has a cable of',
      and: 'and seals on at most',
      source,
    }),
    ...(passage.leastMm === undefined
      ? []
      : [
          told(context, figure, {
            value: least,
            limit: passage.leastMm,
            unit: 'mm',
            bound: 'at-least',
            does: 'has a cable of',
            and: 'and seals on at least',
            source,
          }),
        ]),
  ];
}

/** Cables that are said to lie among fewer than their conduit has. */
const stated = (context: CheckContext, figure: PassageFigure): Found<'and' | 'does'>[] =>
  figure.lines.flatMap((line) => {
    const grouped = line.cable?.grouped;
    const inConduit = inConduits(context.installation).get(line.id);
    if (grouped === undefined || inConduit?.passageId !== figure.passage.id || inConduit.carrying <= grouped)
      return [];
    return [
      told(context, figure, {
        value: inConduit.carrying,
        limit: grouped,
        unit: '',
        does: `has ${line.label} among`,
        and: 'that carry, and its cable is worked out as one of',
        source: 'What is listed in the conduit against what is stated of the cable.',
      }),
    ];
  });

/** Conduits are not too full, glands seal on their cables, and each finds its hole in the part it goes into. */
export const wiringFill: Check<'wiring.fill'> = checkOf({
  id: 'wiring.fill',
  title: 'Conduits and glands',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}} {{does}} {{value}} {{and}} {{limit}}.',
    tight: '{{subject}} {{does}} {{value}} {{and}} {{limit}}.',
    within: '{{subject}}: each takes what goes through it.',
    unknown: '{{subject}}: whether it takes its cables is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringFill.id, context, () => {
      const { installation } = context;
      const passages = installation.wiring?.passages ?? [];
      const byId = passages.length === 0 ? undefined : linesById(installation);
      if (byId?.known !== true) return [];
      const figures = passages.map((one) => passageFigure(installation, byId.value, one));
      const findings = figures.flatMap((figure): Found<'and' | 'does'>[] => {
        const entry = entryOf(installation, figure.passage, passages);
        return [
          ...(figure.lines.length === 0
            ? []
            : figure.passage.kind === 'conduit'
              ? [conduit(context, figure)]
              : gland(context, figure)),
          ...(figure.passage.kind === 'conduit' ? stated(context, figure) : []),
          ...(entry === undefined ? [] : [told(context, figure, entry)]),
        ];
      });
      return troubleOrOne(findings, { ...WHOLE, label: 'Conduits and glands' });
    }),
});
