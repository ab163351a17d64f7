import type { QueryInterface } from 'sequelize';

/** Accounts, their demonstrations, every change ever saved, sessions and rate limits. */
export async function up({ sequelize }: QueryInterface): Promise<void> {
  await sequelize.query(`
    CREATE TABLE accounts (
      id uuid PRIMARY KEY,
      name text NOT NULL,
      email text NOT NULL UNIQUE,
      password_hash text,
      created_at timestamptz NOT NULL DEFAULT now()
    );

    CREATE TABLE demonstrations (
      id uuid PRIMARY KEY,
      account_id uuid NOT NULL REFERENCES accounts ON DELETE CASCADE,
      title text NOT NULL,
      document jsonb NOT NULL,
      version integer NOT NULL DEFAULT 0,
      created_at timestamptz NOT NULL DEFAULT now(),
      changed_at timestamptz NOT NULL DEFAULT now()
    );
    CREATE INDEX demonstrations_of_account ON demonstrations (account_id, changed_at DESC);

    CREATE TABLE changes (
      demonstration_id uuid NOT NULL REFERENCES demonstrations ON DELETE CASCADE,
      version integer NOT NULL,
      change_id text NOT NULL,
      edits jsonb NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (demonstration_id, version),
      UNIQUE (demonstration_id, change_id)
    );

    CREATE TABLE sessions (
      sid text PRIMARY KEY,
      sess json NOT NULL,
      expire timestamptz NOT NULL
    );
    CREATE INDEX sessions_by_expiry ON sessions (expire);

    CREATE TABLE rate_limits (
      key text PRIMARY KEY,
      points integer NOT NULL DEFAULT 0,
      expire bigint
    );
  `);
}

export async function down({ sequelize }: QueryInterface): Promise<void> {
  await sequelize.query('DROP TABLE rate_limits, sessions, changes, demonstrations, accounts;');
}
