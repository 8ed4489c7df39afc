import type { LinkAsWired } from '../../installation/facts.ts';
import type { Design } from '../../design/schema.ts';
import { type Candidate, once, type Trouble } from './candidate.ts';

/** The cables of comms that a cause is about, each made otherwise. */
function otherwise({ cause }: Trouble, change: (link: LinkAsWired) => LinkAsWired) {
  const ids = new Set(cause.findings.map(({ subject }) => subject.id));
  return ({ wiring, ...design }: Design): Design => {
    if (wiring?.links === undefined) return { ...design, ...(wiring === undefined ? {} : { wiring }) };
    const links = wiring.links.map((link) => (ids.has(link.linkId) ? change(link) : link));
    return { ...design, wiring: { ...wiring, links } };
  };
}

/** One pair landed core by core, so that + meets + whatever the pins are; a shield that is there is earthed at one end. */
export function landedAgain(trouble: Trouble): Candidate[] {
  return [
    once(
      'land-again',
      'Land it core by core: one pair, + to + and − to −, its shield earthed at one end',
      otherwise(trouble, ({ polarity: _, shield, ...link }) => ({
        ...link,
        cable: 'pair',
        pairs: 'one',
        ...(shield === undefined || shield === 'none' ? {} : { shield: 'one-end' }),
      })),
    ),
  ];
}

/** The cable that comes with the equipment. */
export const suppliedCable = (trouble: Trouble): Candidate[] => [
  once(
    'supplied-cable',
    'Take the cable that comes with it',
    otherwise(trouble, (link) => ({ ...link, cable: 'supplied' })),
  ),
];

/** Devices joined to the network of the building in the way that their type has. */
export function joinedAsTaken({ catalogue, design: { types } }: Trouble): Candidate[] {
  const ways = new Map(
    [...catalogue, ...types].flatMap((type) =>
      type.kind === 'inverter' || type.kind === 'controller' ? [[type.id, type.networkBy] as const] : [],
    ),
  );
  type Way = 'cable' | 'radio' | 'none';
  const fit = (typeId: string | undefined, way: Way): Way => {
    const taken = ways.get(typeId ?? '');
    return way === 'none' || taken === undefined || taken === 'either' ? way : taken;
  };
  return [
    once('join-as-taken', 'Join it to the network in the way that its type has', (design) => ({
      ...design,
      stacks: design.stacks.map((stack) => ({
        ...stack,
        units: stack.units.map(({ network, ...unit }) =>
          network === undefined
            ? unit
            : { ...unit, network: fit(unit.inverterTypeId ?? stack.inverterTypeId, network) },
        ),
      })),
      controllers: design.controllers.map(({ network, ...controller }) =>
        network === undefined ? controller : { ...controller, network: fit(controller.typeId, network) },
      ),
    })),
  ];
}

/** Meters one after the other on their port. */
export const oneLine = (): Candidate[] => [
  once('one-line', 'Lead the bus from one meter to the next on its port', (design) => ({
    ...design,
    controllers: design.controllers.map((controller) => ({
      ...controller,
      meters: controller.meters.map(({ after: _, ...meter }) => meter),
    })),
  })),
];
