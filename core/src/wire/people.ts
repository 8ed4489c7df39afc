import { z } from 'zod';
import { role } from './roles.ts';

const email = z.email().max(190);
const personName = z.string().trim().min(1).max(120);
/** Length only; what makes a password weak is judged by the server, with a sentence. */
const password = z.string().min(1).max(200);
const licence = z.string().trim().min(1).max(60);
const licenceBody = z.string().trim().min(1).max(120);

export const firstStep = z.object({ needed: z.boolean() });

/** The first administrator of a server: with the code that the start has printed. */
export const firstAdministrator = z.strictObject({
  code: z.string().trim().min(1).max(60),
  firm: personName,
  name: personName,
  email,
  password,
});
export type FirstAdministrator = z.infer<typeof firstAdministrator>;

export const invitation = z.strictObject({
  name: personName,
  email,
  role,
  licence: licence.optional(),
  licenceBody: licenceBody.optional(),
});
export type Invitation = z.infer<typeof invitation>;

/** What is changed of a person; what is left out stays. Null takes a licence away. */
export const personChange = z.strictObject({
  role: role.optional(),
  disabled: z.boolean().optional(),
  licence: licence.nullable().optional(),
  licenceBody: licenceBody.nullable().optional(),
});
export type PersonChange = z.infer<typeof personChange>;

export const personRow = z.object({
  id: z.number().int(),
  name: z.string(),
  email: z.string(),
  role,
  licence: z.string().nullable(),
  licenceBody: z.string().nullable(),
  disabled: z.boolean(),
  /** Has not come in yet: the link of the invitation was not used. */
  invited: z.boolean(),
  lastSeenAt: z.string().nullable(),
});
export type PersonRow = z.infer<typeof personRow>;

/** A link that works once. Its token is told this one time and kept nowhere. */
export const oneTimeLink = z.object({ path: z.string(), expiresAt: z.string() });
export type OneTimeLink = z.infer<typeof oneTimeLink>;

export const ticketInfo = z.object({
  kind: z.enum(['invite', 'reset']),
  name: z.string(),
  email: z.string(),
  firm: z.string(),
});
export type TicketInfo = z.infer<typeof ticketInfo>;

export const takeTicket = z.strictObject({ password });
export const changePassword = z.strictObject({ old: password, next: password });

export const ownSession = z.object({
  id: z.string(),
  agent: z.string(),
  startedAt: z.string(),
  seenAt: z.string(),
  isThis: z.boolean(),
});
export type OwnSession = z.infer<typeof ownSession>;

export const auditEntry = z.object({
  id: z.number().int(),
  at: z.string(),
  actor: z.string(),
  action: z.string(),
  subject: z.string(),
});
export type AuditEntry = z.infer<typeof auditEntry>;

export const auditPage = z.object({ entries: z.array(auditEntry), intact: z.boolean(), told: z.string() });
export type AuditPage = z.infer<typeof auditPage>;
