import { LONGEST_NETWORK_M, linkFigures, type LinkFigure } from '../../figures/comms/linkFigures.ts';
import { typeOfUnit } from '../../figures/wiring/acCarried.ts';
import type { Installation } from '../../installation/installation.ts';
import type { Circuit } from '../../installation/facts.ts';
import { isCarriedInIsland } from '../../installation/partitionKinds.ts';
import { field, type Known } from '../../values/known.ts';
import { type Check, type CheckContext, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { linkSubject } from '../support/links.ts';
import { onNetwork, troubleOrOne } from '../support/network.ts';

type Way = 'cable' | 'radio';
const WAY_WORDS = { cable: 'by cable', radio: 'by radio', none: 'by nothing' } as const;

/** How the type of the device at a link can be joined, and where that stands. */
function takenBy(installation: Installation, { ends: [part] }: LinkFigure): Known<Way | 'either' | 'none'> {
  const set = installation.stacks.find(({ stack }) => stack.id === part?.stackId);
  const unit = set?.stack.units.find(({ id }) => id === part?.unitId);
  const type =
    set === undefined || unit === undefined
      ? installation.controllers.find(({ controller }) => part?.id === `controller ${controller.id}`)?.type
      : typeOfUnit(installation, set, unit);
  if (type?.known !== true) return type ?? { known: false, missing: [] };
  return field(type.value.networkBy, 'types', type.value.id, 'networkBy');
}

const WHOLE: Subject = { kind: 'design', id: 'building-network', label: 'Network of the building' };
const ofIt = (subject: Subject): Subject => ({
  ...subject,
  about: [...(subject.about ?? []), { kind: WHOLE.kind, id: WHOLE.id }],
});

/** A device is joined in a way that its type has. */
function joined(context: CheckContext, figure: LinkFigure): Found<'reason'> {
  const subject = ofIt(linkSubject(context, figure));
  const takes = takenBy(context.installation, figure);
  if (!takes.known) return unknownFinding(wiringNetwork.id, context, subject, '', takes.missing);
  const way: Way = figure.link.by === 'radio' ? 'radio' : 'cable';
  const isTaken = takes.value === 'either' || takes.value === way;
  const has = takes.value === 'either' ? 'by cable or by radio' : WAY_WORDS[takes.value];
  return judge(wiringNetwork.id, context, {
    subject,
    value: isTaken ? 0 : 1,
    limit: 0,
    unit: '',
    graded: false,
    data: { reason: `joined ${WAY_WORDS[way]}, where its type is joined ${has}` },
    working: () => ({
      ...NO_WORKING,
      source: `Socket or radio of its type; a cable of copper pairs reaches ${LONGEST_NETWORK_M} m.`,
    }),
  });
}

/** The router has a supply while the grid is away: else nobody away from the site hears of an outage. */
function fed(context: CheckContext, circuit: Circuit): Found<'reason'> {
  const { partitions } = context.installation;
  const subject = ofIt({
    kind: 'line',
    id: circuit.id,
    label: `Router on ${circuit.name}`,
    about: circuit.partitionId === undefined ? [] : [{ kind: 'partition', id: circuit.partitionId }],
  });
  const board = partitions.find(({ id }) => id === circuit.partitionId);
  if (board === undefined)
    return unknownFinding(wiringNetwork.id, context, subject, '', [['circuits', circuit.id, 'partitionId']]);
  return judge(wiringNetwork.id, context, {
    subject,
    value: isCarriedInIsland(board) ? 0 : 1,
    limit: 0,
    unit: '',
    graded: false,
    worst: 'tight',
    data: { reason: `${board.name} is dark while the grid is away, and nothing reports then` },
    working: () => ({
      ...NO_WORKING,
      source: 'What reports an outage has to be carried through it.',
      notes: [`${circuit.name} hangs on ${board.name}.`],
    }),
  });
}

/** What reports over the network of the building is joined as its types can be, and still heard in an outage. */
export const wiringNetwork: Check<'wiring.network'> = checkOf({
  id: 'wiring.network',
  title: 'Network of the building',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}}: {{reason}}.',
    within: '{{subject}}: joined as its type can be, and its router runs in an outage.',
    unknown: '{{subject}}: whether it reports in an outage is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringNetwork.id, context, () => {
      const { installation } = context;
      const figures = linkFigures(installation);
      const links = figures.known ? figures.value.filter(({ link }) => link.kind === 'network') : [];
      if (links.length === 0) return [];
      const routers = installation.circuits.filter(({ feedsRouter }) => feedsRouter === 'yes');
      return troubleOrOne(
        [
          ...links.map((figure) => joined(context, figure)),
          ...(routers.length === 0
            ? [unknownFinding(wiringNetwork.id, context, WHOLE, '', [['router']])]
            : routers.map((circuit) => fed(context, circuit))),
        ],
        WHOLE,
      );
    }),
});
