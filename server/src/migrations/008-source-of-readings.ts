import { DataTypes } from 'sequelize';
import type { NamedMigration } from './migration.ts';

/**
 * Where a figure came from is no reason to go on: it stands in a column of its own. What was noted of captures before moves there, so that
 * a failed reading taken from one waits for its reason.
 */
export const sourceOfReadings: NamedMigration = {
  name: '008-source-of-readings',
  up: async ({ context }) => {
    await context.addColumn('readings', 'source', {
      type: DataTypes.STRING(200),
      allowNull: false,
      defaultValue: '',
    });
    await context.sequelize.query(
      "UPDATE readings SET source = LEFT(note, 200), note = '' WHERE note LIKE 'From the capture %'",
    );
  },
};
