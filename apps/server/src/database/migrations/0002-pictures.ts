import type { QueryInterface } from 'sequelize';

/** Kept pictures, the version of the format in which a change is written, and a row that is written to see whether writing works. */
export async function up({ sequelize }: QueryInterface): Promise<void> {
  await sequelize.query(`
    CREATE TABLE pictures (
      demonstration_id uuid PRIMARY KEY REFERENCES demonstrations ON DELETE CASCADE,
      version integer NOT NULL,
      painter text NOT NULL,
      day text,
      night text
    );

    -- Changes from before this migration are of version 7 at the latest, and nobody asks for older ones again.
    ALTER TABLE changes ADD COLUMN format integer NOT NULL DEFAULT 7;
    ALTER TABLE changes ALTER COLUMN format DROP DEFAULT;

    CREATE TABLE heartbeat (
      one boolean PRIMARY KEY CHECK (one),
      at timestamptz NOT NULL
    );
  `);
}

export async function down({ sequelize }: QueryInterface): Promise<void> {
  await sequelize.query('DROP TABLE heartbeat, pictures; ALTER TABLE changes DROP COLUMN format;');
}
