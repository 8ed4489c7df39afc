import type { Installation } from '../installation/installation.ts';
import type { ModeKind } from '../installation/modeKinds.ts';
import { rememberBy } from '../values/remember.ts';

/** One way the installation can be operated. `unit-lost` is island less one inverter of one stack. */
export interface Mode {
  readonly id: string;
  readonly kind: ModeKind;
  readonly label: string;
  readonly lostUnit?: { readonly stackId: string; readonly unitId: string };
}

/** What modes follow from. */
const sourcesOf = ({ site, stacks, generators }: Installation): readonly [object, ...unknown[]] => [
  site,
  ...stacks.map(({ stack }) => stack),
  ...generators.map(({ generator }) => generator),
];

/** The modes an installation makes possible, in the order they are shown. */
export const modesOf = rememberBy(sourcesOf, (installation): readonly Mode[] => {
  const { stacks, generators, site } = installation;
  const modes: Mode[] = site.grid === 'none' ? [] : [{ id: 'on-grid', kind: 'on-grid', label: 'On grid' }];
  if (stacks.length > 0) modes.push({ id: 'island', kind: 'island', label: 'Island' });
  if (generators.some(({ generator }) => generator.connection === 'generator-port')) {
    modes.push({ id: 'generator-port', kind: 'generator-port', label: 'Generator port' });
  }
  if (generators.some(({ generator }) => generator.connection === 'transfer-switch')) {
    modes.push({ id: 'transfer-switch', kind: 'transfer-switch', label: 'Generator by transfer switch' });
  }
  if (generators.some(({ generator }) => generator.connection === 'inlet')) {
    modes.push({ id: 'generator-inlet', kind: 'generator-inlet', label: 'Generator by inlet' });
  }
  if (site.maintenanceBypass === 'yes' && site.grid !== 'none') {
    modes.push({ id: 'maintenance-bypass', kind: 'maintenance-bypass', label: 'Maintenance bypass' });
  }
  for (const { stack } of stacks) {
    // A set of one has no such mode: without its only unit there is no island to look at.
    if (stack.units.length < 2) continue;
    stack.units.forEach((unit, index) => {
      const where = stacks.length > 1 ? `${stack.name}, ` : '';
      modes.push({
        id: `unit-lost:${stack.id}/${unit.id}`,
        kind: 'unit-lost',
        label: `Lost: ${where}unit ${index + 1}${unit.line === undefined ? '' : ` (${unit.line})`}`,
        lostUnit: { stackId: stack.id, unitId: unit.id },
      });
    });
  }
  return modes;
});
