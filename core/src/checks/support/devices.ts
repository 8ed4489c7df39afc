import type { DeviceFigures, Network, Part } from '../../installation/network.ts';

/** Places whose device is there to open on too much current; elsewhere a switch alone may stand. */
const GUARDS: ReadonlySet<Part['role']> = new Set([
  'service-main',
  'unit-grid',
  'unit-output',
  'meter-device',
  'control-device',
]);

const opensOnCurrent = ({ device }: DeviceFigures): boolean =>
  device === 'circuit-breaker' || device === 'fuse' || device === 'dc-breaker' || device === 'dc-fuse';

/** Whether a part is a device that opens on too much current: by its type, else by its place. */
export const isGuard = ({ device, role }: Part): boolean =>
  device === undefined ? GUARDS.has(role) : opensOnCurrent(device);

/** The devices of a role that the design does not deny. */
export const devicesOf = ({ parts }: Network, role: Part['role']): readonly Part[] =>
  parts.filter(
    (part) =>
      part.kind === 'device' &&
      part.role === role &&
      !(part.fitted?.known === true && part.fitted.value === 'none'),
  );

/** A device for residual current, or one that opens on that as well. */
export const isResidual = ({ device, residualMa }: Pick<DeviceFigures, 'device' | 'residualMa'>): boolean =>
  device === 'residual-current' || residualMa !== undefined;
