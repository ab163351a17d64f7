import pg from 'pg';
import { connect } from '../src/database/connect.ts';
import { migrate } from '../src/database/migrate.ts';
import { createLogger } from '../src/log.ts';

/** Makes the migrated database that every test worker's database is cloned from. */
const admin = process.env.TEST_DATABASE_URL ?? '';
const url = new URL(admin);
url.pathname = '/template';
const client = new pg.Client({ connectionString: admin });
await client.connect();
await client.query('DROP DATABASE IF EXISTS template WITH (FORCE)');
await client.query('CREATE DATABASE template');
await client.end();
const database = connect(url.href, createLogger('silent'));
await migrate(database.sequelize);
await database.close();
