import { MODE_KINDS } from '../../installation/modeKinds.ts';
import { type LiveNeutral, pathToBond } from '../../modes/walk.ts';
import { counted } from '../../words/quantity.ts';
import { type Check, type CheckContext, judge, NO_WORKING, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { labelOf, listWords, type NetworkCase, onNetwork, pathWords, refsOf } from '../support/network.ts';

function measured(
  context: CheckContext,
  { network }: NetworkCase,
  { boards, bonds, perhaps, missing }: LiveNeutral,
): Found<'way' | 'what'> {
  const [first = ''] = boards;
  const nameOf = (id: string): string => network.bonds.find((bond) => bond.id === id)?.label ?? id;
  // The bond that came the longest way is the one that does not belong.
  const farthest = (): readonly string[] =>
    bonds.map((id) => pathToBond(network, context.mode, id, first)).sort((a, b) => b.length - a.length)[0] ??
    [];
  const parts = network.bonds.flatMap((bond) => (bonds.includes(bond.id) ? [bond.partId] : []));
  const isDecided = bonds.length > 1 || perhaps.length === 0;
  return judge(bondingNeutralEarth.id, context, {
    subject: {
      kind: 'part',
      id: first,
      label: `Neutral of ${listWords(boards.map((id) => labelOf(network, id)))}`,
      about: refsOf(network, [...boards, ...parts]),
    },
    value: bonds.length,
    limit: 1,
    unit: '',
    // None is as wrong as two: without a bond no residual-current device sees a fault.
    bound: bonds.length === 0 ? 'at-least' : 'at-most',
    graded: false,
    missing: [...(isDecided ? [] : missing), ...(bonds.length === 0 ? network.gaps : [])],
    data: {
      what:
        bonds.length === 0
          ? 'floats: no neutral–earth bond stands on it, so residual-current devices see no fault'
          : `has ${counted(bonds.length, 'neutral–earth bond')}: ${listWords(bonds.map(nameOf))}`,
      way: bonds.length > 1 ? ` The way: ${pathWords(network, farthest())}.` : '',
    },
    working: () => ({
      ...NO_WORKING,
      source:
        'Every contact that is closed in this mode is followed from the neutral of the board; each bond that is met counts once. Exactly one belongs there.',
      notes: [...bonds, ...perhaps].map(
        (id) => `${nameOf(id)}: ${pathWords(network, pathToBond(network, context.mode, id, first))}.`,
      ),
      inputs: network.bonds
        .filter(({ id }) => bonds.includes(id) || perhaps.includes(id))
        .map((bond) => ({ label: bond.label, path: bond.from, value: undefined, unit: '' })),
    }),
  });
}

/** Bonds between neutral and earth, seen from the neutral of each live board: exactly one in each mode. */
export const bondingNeutralEarth: Check<'bonding.neutral-earth'> = checkOf({
  id: 'bonding.neutral-earth',
  title: 'One neutral–earth bond',
  family: 'bonding',
  modes: MODE_KINDS,
  sentences: {
    over: '{{subject}} {{what}}. Exactly one belongs there.{{way}}',
    tight: '{{subject}} {{what}}.',
    within: '{{subject}} {{what}}.',
    unknown: '{{subject}}: how many neutral–earth bonds stand on it is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(bondingNeutralEarth.id, context, (one) =>
      one.facts.neutrals.map((neutral) => measured(context, one, neutral)),
    ),
});
