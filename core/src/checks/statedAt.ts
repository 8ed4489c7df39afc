import type { Installation } from '../installation/installation.ts';
import type { Path } from '../values/problem.ts';
import type { Ref, Working } from './finding.ts';
import type { CheckId, RegisteredFinding } from './registry.ts';

/** What of a set a check looks at, where its working names no figure of its own. */
const OF_SET: Readonly<Partial<Record<CheckId, Path>>> = {
  'bank.addresses': ['bank', 'modules'],
  'bank.bus-ends': ['bank', 'comms'],
  'bank.charge': ['chargeCurrentA'],
  'bank.comms': ['bank', 'comms'],
  'bank.conductors': ['bank', 'lead', 'areaMm2'],
  'bank.inverter-leads': ['bank', 'inverterLead', 'lengthM'],
  'bank.loop': ['bank', 'comms'],
  'bank.module-charge': ['chargeCurrentA'],
  'bank.modules': ['bank', 'modules'],
  'bank.sharing': ['bank', 'joining'],
  'stack.ac-leads': ['units'],
  'stack.arrangement': ['arrangement'],
  'stack.bus-ends': ['terminated'],
  'stack.count': ['units'],
  'stack.firmware': ['units'],
  'stack.parallel-bus': ['busLinks'],
};

/** Whether a working leads to a field by itself. */
export const leadsToField = ({ steps, inputs }: Working): boolean =>
  inputs.length > 0 || steps.some(({ symbols }) => symbols.some(({ path }) => path !== undefined));

/** A place of the design, and what it is called where that is a whole thing and no field of one. */
export interface StatedAt {
  readonly path: Path;
  readonly label: string | undefined;
}

const whole = (label: string, ...path: Path): StatedAt[] => [{ path, label }];

function placeOf(
  check: CheckId,
  { kind, id }: Ref,
  label: string,
  { place, network }: Installation,
): StatedAt[] {
  switch (kind) {
    case 'stack':
    case 'bank': {
      const field = OF_SET[check];
      return field === undefined
        ? whole(label, 'stacks', id, ...(kind === 'bank' ? ['bank'] : []))
        : [{ path: ['stacks', id, ...field], label: undefined }];
    }
    case 'generator':
      return whole(label, 'generators', id);
    case 'array':
      return whole(label, 'arrays', id);
    case 'controller':
      return whole(label, 'controllers', id);
    case 'start-case':
      return whole(label, 'startCases', id);
    case 'service':
      return [{ path: ['site', 'serviceRatingA'], label: undefined }];
    case 'place':
      return place?.mounted.some((one) => one.id === id) === true
        ? whole(label, 'place', 'mounted', id)
        : whole(label, 'place');
    case 'part': {
      const part = network.known ? network.value.parts.find((one) => one.id === id) : undefined;
      return part === undefined ? [] : whole(part.label, ...part.from);
    }
    default:
      return [];
  }
}

/** Where the design states what a finding is about: for findings whose working leads to no field of its own. */
export function statedAt(
  { check, subject }: RegisteredFinding,
  installation: Installation,
): readonly StatedAt[] {
  const own = placeOf(check, subject, subject.label, installation);
  const about = (): StatedAt[] =>
    (subject.about ?? []).flatMap((ref) => placeOf(check, ref, subject.label, installation));
  const found = [...(own.length > 0 ? own : about())];
  // What is told of many things together leads to the page on which they are joined, or to the loads.
  if (found.length === 0)
    found.push(...whole(subject.label, subject.kind === 'part' ? 'wiring' : 'circuits'));
  return [...new Map(found.map((one) => [one.path.join('/'), one])).values()];
}
