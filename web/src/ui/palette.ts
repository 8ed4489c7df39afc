import { analysisCauses, modesOf, STAGES } from '@bastion/core';
import type { OpenJob } from '../state/job.ts';
import { fieldHref } from './fieldLinks.ts';

/** Something that the palette offers: a place to go to, or a thing to do. */
export interface PaletteEntry {
  readonly group: 'Go to' | 'Do' | 'Mode' | 'Cause' | 'Circuit' | 'Unit';
  readonly key: string;
  readonly title: string;
  readonly hint?: string;
  /** Where it leads, or the name of what it does. */
  readonly to?: string;
  readonly mode?: string;
  readonly action?: 'undo' | 'redo' | 'export' | 'print';
  readonly causeId?: string;
}

/** Long lists are looked through only once somebody types. */
const LISTED_BARE = new Set<PaletteEntry['group']>(['Go to', 'Do', 'Mode', 'Cause']);
const MOST = 40;

/** Everything in a job that can be gone to, done or found. */
export function paletteEntries({ id, design, analysis, canEdit }: OpenJob): PaletteEntry[] {
  return [
    ...STAGES.map(({ key, title }, index): PaletteEntry => ({
      group: 'Go to',
      key: `stage ${key}`,
      title,
      hint: `Alt ${index + 1}`,
      to: `/jobs/${id}/${key}`,
    })),
    { group: 'Go to', key: 'wall', title: 'Wall plan', to: `/jobs/${id}/site/wall` },
    { group: 'Go to', key: 'delivery', title: 'Delivery list', to: `/jobs/${id}/site/delivery` },
    { group: 'Go to', key: 'revisions', title: 'Earlier revisions', to: `/jobs/${id}/revisions` },
    { group: 'Go to', key: 'jobs', title: 'All jobs', to: '/' },
    { group: 'Go to', key: 'catalogue', title: 'Equipment catalogue', to: '/catalogue' },
    ...(canEdit
      ? ([
          { group: 'Do', key: 'undo', title: 'Undo', hint: 'Ctrl Z', action: 'undo' },
          { group: 'Do', key: 'redo', title: 'Do again', hint: 'Ctrl Shift Z', action: 'redo' },
        ] as const)
      : []),
    { group: 'Do', key: 'export', title: 'Export the design as a file', action: 'export' },
    { group: 'Do', key: 'print', title: 'Print this page', action: 'print' },
    ...modesOf(analysis.installation).map((mode): PaletteEntry => ({
      group: 'Mode',
      key: `mode ${mode.id}`,
      title: mode.label,
      mode: mode.id,
    })),
    ...analysisCauses(analysis)
      .filter(({ state }) => state !== 'tight')
      .map((cause): PaletteEntry => ({
        group: 'Cause',
        key: cause.id,
        title: cause.title,
        hint: cause.accepted ? 'accepted' : cause.state,
        causeId: cause.id,
      })),
    ...design.circuits.map((circuit): PaletteEntry => ({
      group: 'Circuit',
      key: `circuit ${circuit.id}`,
      title: circuit.name,
      hint: circuit.lines?.join('+') ?? 'line not known',
      to: fieldHref(id, ['circuits', circuit.id, 'name']),
    })),
    ...design.stacks.flatMap((stack) =>
      stack.units.map((unit, index): PaletteEntry => ({
        group: 'Unit',
        key: `unit ${stack.id} ${unit.id}`,
        title: `Unit ${index + 1} of ${stack.name}`,
        hint: [unit.line, unit.serial].filter(Boolean).join(' '),
        to: fieldHref(id, ['stacks', stack.id, 'units', unit.id, 'line']),
      })),
    ),
  ];
}

/** What fits the words that were typed, in the order of the list; all words must be in it. */
export function findEntries(entries: readonly PaletteEntry[], typed: string): PaletteEntry[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return entries.filter(({ group }) => LISTED_BARE.has(group)).slice(0, MOST);
  return entries
    .filter(({ group, title, hint = '' }) => {
      const text = `${group} ${title} ${hint}`.toLowerCase();
      return words.every((word) => text.includes(word));
    })
    .slice(0, MOST);
}
