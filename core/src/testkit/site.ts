import { expect } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { commandSite, type SiteCommand } from '../site/siteCommands.ts';
import { sitePlan } from '../site/sitePlan.ts';
import { newSite, type SetState, type SiteState } from '../site/siteState.ts';
import { runSite } from '../site/siteStep.ts';
import type { SitePlan } from '../site/siteTypes.ts';
import type { InverterType } from '../catalogue/inverterType.ts';
import { variantOf } from './bonding.ts';
import { baseDesign, stack1 } from './designs.ts';
import { withSet } from './wired.ts';

/** A site that is played by commands and time. */
export interface Played {
  readonly plan: SitePlan;
  readonly state: SiteState;
  readonly set: SetState;
  readonly act: (...commands: SiteCommand[]) => void;
  readonly run: (seconds: number) => void;
}

export function play(edit: (design: Design) => void = () => undefined): Played {
  const design = baseDesign();
  edit(design);
  const made = sitePlan(design, SAMPLE_TYPES);
  if (!made.ok) throw new Error(made.sentence);
  const { plan } = made;
  const state = newSite(plan, 1);
  const [set] = state.sets;
  if (set === undefined) throw new Error('It has a set.');
  return {
    plan,
    state,
    set,
    act: (...commands) => {
      for (const command of commands) expect(commandSite(plan, state, command)).toBeUndefined();
    },
    run: (seconds) => runSite(plan, state, seconds),
  };
}

/** What brings a set to life: its battery and its units. */
export const AWAKE: readonly SiteCommand[] = [
  { do: 'battery', stackId: 's', closed: true },
  { do: 'units', on: true },
];

/** The base with an inverter of its own, like the sample with other figures. */
export function withInverter(design: Design, figures: Partial<InverterType>): void {
  design.types.push(variantOf('inverter', 'hybrid-5k-1ph', { id: 'own', ...figures }));
  stack1(design).inverterTypeId = 'own';
}

/** A set with fuel: at the generator port unless it is said otherwise. */
export function withFuelledSet(
  design: Design,
  typeId: string,
  over: Partial<Design['generators'][number]> & { readonly fuelL: number },
): void {
  withSet(design, typeId);
  Object.assign(design.generators.at(-1) ?? {}, { id: 'g', ...over });
}

/** From dead to island with everything switched on. */
export function island(edit?: (design: Design) => void): Played {
  const site = play(edit);
  site.act(...AWAKE, { do: 'grid', present: false });
  site.run(11);
  expect(site.set.phase).toBe('island');
  site.act({ do: 'circuits', on: true });
  return site;
}
