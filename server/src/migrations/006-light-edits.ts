import { DataTypes } from 'sequelize';
import type { NamedMigration } from './migration.ts';

/**
 * An edit is one small row that says who made it and when; the whole document follows later, and says how far it goes. What is there
 * already goes as far as its revision.
 */
export const lightEdits: NamedMigration = {
  name: '006-light-edits',
  up: async ({ context }) => {
    await context.addColumn('jobs', 'document_revision', {
      type: DataTypes.INTEGER.UNSIGNED,
      allowNull: false,
      defaultValue: 0,
    });
    await context.sequelize.query('UPDATE jobs SET document_revision = revision');
    await context.addColumn('edits', 'author', {
      type: DataTypes.STRING(120),
      allowNull: false,
      defaultValue: '',
    });
    await context.addColumn('edits', 'at', { type: DataTypes.DATE(3), allowNull: true });
    await context.sequelize.query(
      'UPDATE edits e JOIN revisions r ON r.job_id = e.job_id AND r.number = e.revision SET e.author = r.author, e.at = r.at',
    );
    // The number of a revision is given once: two servers that write the same one at once do not both succeed.
    await context.addIndex('edits', ['job_id', 'revision'], { unique: true, name: 'edits_in_order' });
    await context.removeIndex('edits', 'edits_by_revision');
    // From here on a revision row is there only where it keeps a whole document.
    await context.sequelize.query('DELETE FROM revisions WHERE document IS NULL');
  },
};
