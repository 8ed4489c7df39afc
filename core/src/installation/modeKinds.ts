/** The ways an installation can be operated, in the order they are shown. */
export const MODE_KINDS = [
  'on-grid',
  'island',
  'generator-port',
  'transfer-switch',
  'generator-inlet',
  'maintenance-bypass',
  'unit-lost',
] as const;
export type ModeKind = (typeof MODE_KINDS)[number];
