import type { Sequelize } from 'sequelize';
import { AttachmentRow, initAttachments } from './attachments.ts';
import { AuditHeadRow, AuditRow, initAudit } from './audit.ts';
import { CaptureRow, initCaptures } from './captures.ts';
import { EditRow, initEdits } from './edits.ts';
import { FirmRow, initFirms } from './firms.ts';
import { initJobs, JobRow } from './jobs.ts';
import { initLibrary, LibraryRow } from './library.ts';
import { initReadings, ReadingRow } from './readings.ts';
import { initRevisions, RevisionRow } from './revisions.ts';
import { initSessions, SessionRow } from './sessions.ts';
import { initRuns, RunRow } from './runs.ts';
import { initTickets, TicketRow } from './tickets.ts';
import { initTypes, TypeRow } from './types.ts';
import { initUsers, UserRow } from './users.ts';

export interface Models {
  readonly firms: typeof FirmRow;
  readonly users: typeof UserRow;
  readonly sessions: typeof SessionRow;
  readonly tickets: typeof TicketRow;
  readonly audit: typeof AuditRow;
  readonly auditHead: typeof AuditHeadRow;
  readonly jobs: typeof JobRow;
  readonly revisions: typeof RevisionRow;
  readonly edits: typeof EditRow;
  readonly runs: typeof RunRow;
  readonly readings: typeof ReadingRow;
  readonly library: typeof LibraryRow;
  readonly types: typeof TypeRow;
  readonly attachments: typeof AttachmentRow;
  readonly captures: typeof CaptureRow;
}

/** Binds every model to a connection. */
export function initModels(sequelize: Sequelize): Models {
  initFirms(sequelize);
  initUsers(sequelize);
  initSessions(sequelize);
  initTickets(sequelize);
  initAudit(sequelize);
  initJobs(sequelize);
  initRevisions(sequelize);
  initEdits(sequelize);
  initRuns(sequelize);
  initReadings(sequelize);
  initLibrary(sequelize);
  initTypes(sequelize);
  initAttachments(sequelize);
  initCaptures(sequelize);
  return {
    firms: FirmRow,
    users: UserRow,
    sessions: SessionRow,
    tickets: TicketRow,
    audit: AuditRow,
    auditHead: AuditHeadRow,
    jobs: JobRow,
    revisions: RevisionRow,
    edits: EditRow,
    runs: RunRow,
    readings: ReadingRow,
    library: LibraryRow,
    types: TypeRow,
    attachments: AttachmentRow,
    captures: CaptureRow,
  };
}
