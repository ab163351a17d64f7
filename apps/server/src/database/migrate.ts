import type { QueryInterface, Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import * as accountsAndLibrary from './migrations/0001-accounts-and-library.ts';
import * as pictures from './migrations/0002-pictures.ts';

/** In the order in which they run; a migration, once released, never changes. */
const migrations = [
  { name: '0001-accounts-and-library', ...accountsAndLibrary },
  { name: '0002-pictures', ...pictures },
];

/** Held while migrating, so that several servers that start together do not migrate twice. */
const lock = 794_213_556;

/** Brings the database's tables up to date. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug<QueryInterface>({
    migrations: migrations.map(({ name, up, down }) => ({
      name,
      up: ({ context }) => up(context),
      down: ({ context }) => down(context),
    })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  });
  await sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock($lock)', { bind: { lock }, transaction });
    await umzug.up();
  });
}
