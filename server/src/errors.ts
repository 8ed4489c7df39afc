import type { Conflict, Problem } from '@bastion/core';

/** Every refusal of the server: a code that is never reused, its status, and its sentence. */
export const REFUSALS = {
  SIGN_IN_NEEDED: { status: 401, message: 'Sign in to go on.' },
  SIGN_IN_WRONG: { status: 401, message: 'That address and password do not belong together.' },
  NOT_ALLOWED: { status: 403, message: 'Your role does not allow this.' },
  FOREIGN_ORIGIN: { status: 403, message: 'This request came from another site and was refused.' },
  NOTE_OF_OTHERS: {
    status: 403,
    message:
      'This note is somebody else’s. They, or a designer, can change it; add one of your own beside it.',
  },
  NOT_FOUND: { status: 404, message: 'There is nothing here by that name, or it belongs to another firm.' },
  EDIT_CONFLICT: { status: 409, message: 'Somebody else changed the same place. Choose which value stays.' },
  RUN_CLOSED: {
    status: 409,
    message: 'This test run has ended; its readings stay as they are. Start a new run to test again.',
  },
  EDIT_ID_REUSED: {
    status: 409,
    message: 'An edit of this id was saved before with other content. This one was not saved.',
  },
  READING_KEY_REUSED: {
    status: 409,
    message: 'A reading of this key was recorded before with another value. This one was not recorded.',
  },
  IMPORT_STALE: {
    status: 409,
    message:
      'The job was changed since this file was opened for it. Nothing was replaced; look at it again first.',
  },
  PROCEDURE_IMPOSSIBLE: {
    status: 422,
    message: 'No test can be made of this design as it stands, so no run was started.',
  },
  NOTHING_TO_DRAW: {
    status: 422,
    message: 'There is nothing to draw yet: choose the supply of the site first.',
  },
  TOO_MUCH: { status: 413, message: 'This holds more than can be read here. Nothing was kept.' },
  UPLOAD_BROKEN: {
    status: 400,
    message: 'The upload was cut short, or is not one photo with its small picture. Nothing was kept.',
  },
  DOCUMENT_TOO_LARGE: { status: 413, message: 'This is larger than a design can be.' },
  DOCUMENT_INVALID: { status: 422, message: 'The design was not saved, because part of it is not possible.' },
  REQUEST_INVALID: { status: 400, message: 'The request is not in the form this server takes.' },
  READING_UNKNOWN: { status: 422, message: 'This run has no such step or reading.' },
  REASON_NEEDED: { status: 422, message: 'Give a reason for aborting: the record needs it.' },
  SKIP_REASON_NEEDED: { status: 422, message: 'Give a reason for skipping this step: the record needs it.' },
  NOT_A_PICTURE: { status: 415, message: 'This is not a JPEG, PNG or WebP picture, so it was not kept.' },
  PICTURE_TOO_LARGE: {
    status: 422,
    message:
      'This picture unfolds to more than 40 million points, so it was not kept. Make it smaller first.',
  },
  PICTURE_TOO_HEAVY: { status: 413, message: 'This photo is larger than 12 MB, so it was not kept.' },
  TOO_MANY_PICTURES: { status: 422, message: 'This job already holds 500 photos. Nothing was added.' },
  NOT_A_CAPTURE: { status: 415, message: 'This is no .cff, .csv, .txt or .tsv capture, so it was not kept.' },
  TOO_MANY_CAPTURES: { status: 422, message: 'This job already holds 200 captures. Nothing was added.' },
  TOO_MANY_VARIANTS: { status: 422, message: 'A job holds eight variants at most. Remove one first.' },
  VARIANT_NAME_TAKEN: { status: 422, message: 'This job already has a variant of that name.' },
  VARIANT_STAYS: {
    status: 422,
    message: 'The main design stays, and so does a variant that has been tested: the record refers to it.',
  },
  TYPE_IS_SAMPLE: {
    status: 422,
    message: 'Samples stay as they are. Duplicate it, and change the copy. Nothing was kept.',
  },
  TYPE_CHANGED: {
    status: 409,
    message: 'Somebody has kept another version of this type meanwhile. Nothing was kept.',
  },
  TYPE_IN_USE: { status: 422, message: 'This type is used in a job, so it stays in the catalogue.' },
  CODE_WRONG: {
    status: 403,
    message: 'That is not the code that the last start has printed, or there is an administrator already.',
  },
  LINK_SPENT: {
    status: 410,
    message: 'This link has been used, was replaced by a newer one, or has run out. Ask for a new one.',
  },
  PASSWORD_WEAK: { status: 422, message: 'This password was not taken.' },
  PASSWORD_WRONG: { status: 403, message: 'The present password is another one. Nothing was changed.' },
  EMAIL_TAKEN: { status: 422, message: 'Somebody of this address is here already. Nobody was invited.' },
  LAST_ADMINISTRATOR: {
    status: 422,
    message: 'A firm needs one administrator who can come in. Make somebody else one first.',
  },
  STORED_UNREADABLE: {
    status: 422,
    message: 'What is stored here cannot be read by this version. It was left as it is.',
  },
  TOO_LONG: {
    status: 422,
    message:
      'This takes more than five seconds to work out, which no design of a building does. It was given up.',
  },
  SITE_AWAY: {
    status: 409,
    message:
      'The simulated site does not answer on this server. Start the server with npm start, and try again.',
  },
  SITE_IMPOSSIBLE: { status: 422, message: 'This design cannot be simulated as it stands.' },
  SITE_NOT_OPEN: { status: 404, message: 'No simulated site is open for this job.' },
  LIVE_HOST: {
    status: 403,
    message:
      'This server reads devices on its own machine alone. Who runs it can allow others with BASTION_LIVE_HOSTS.',
  },
  BUSY: { status: 503, message: 'The server has too much to work out at the moment. Try again.' },
  TOO_MANY_TRIES: { status: 429, message: 'Too many tries. Wait a minute and try again.' },
  INTERNAL: { status: 500, message: 'The server failed at this. Nothing was changed; try again.' },
} as const satisfies Record<string, { status: number; message: string }>;

export type RefusalCode = keyof typeof REFUSALS;

export interface RefusalDetail {
  readonly problems?: readonly Problem[];
  readonly conflicts?: readonly Conflict[];
  readonly revision?: number;
  readonly document?: unknown;
}

/** Thrown by services for an expected failure; the error handler turns it into its reply. */
export class RefusalError extends Error {
  readonly code: RefusalCode;
  readonly detail: RefusalDetail;

  constructor(code: RefusalCode, detail: RefusalDetail = {}) {
    super(REFUSALS[code].message);
    this.code = code;
    this.detail = detail;
  }
}
