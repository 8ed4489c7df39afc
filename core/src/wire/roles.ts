import { z } from 'zod';

/** What people are in a firm. */
export const role = z.enum(['administrator', 'designer', 'approver', 'field', 'viewer']);
export type Role = z.infer<typeof role>;

/** What somebody may do. Everyone of a firm may look. */
export interface Powers {
  /** Makes jobs, changes designs, keeps types and library entries. */
  readonly design: boolean;
  /** Starts tests and records readings. */
  readonly test: boolean;
  /** Ticks deliveries, logs clamp readings, takes photos. */
  readonly note: boolean;
  /** Takes responsibility for findings by name. */
  readonly accept: boolean;
  /** Invites people, changes what they are, reads the audit trail. */
  readonly manage: boolean;
}

/** The one table of what each role may do. */
export const POWERS: Readonly<Record<Role, Powers>> = {
  administrator: { design: true, test: true, note: true, accept: false, manage: true },
  designer: { design: true, test: true, note: true, accept: false, manage: false },
  approver: { design: false, test: false, note: false, accept: true, manage: false },
  field: { design: false, test: true, note: true, accept: false, manage: false },
  viewer: { design: false, test: false, note: false, accept: false, manage: false },
};

/** What each role is for, in words. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  administrator: 'runs the firm’s people, designs and tests',
  designer: 'designs and tests',
  approver: 'reads and approves',
  field: 'tests on site',
  viewer: 'reads',
};
