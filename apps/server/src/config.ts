import { z } from 'zod';

const configSchema = z.object({
  PORT: z.coerce.number().int().min(0).max(65_535).default(4280),
  HOST: z.string().default('127.0.0.1'),
  DATABASE_URL: z.string().regex(/^postgres(ql)?:\/\//, 'must be a PostgreSQL address such as postgres://…'),
  SESSION_SECRET: z.string().min(32, 'must have at least 32 characters'),
  /** The demo teacher can sign in, and the example demonstrations are put in. */
  DEMO: z.enum(['0', '1']).default('0'),
  /** Set behind a proxy that speaks HTTPS to the outside. */
  TRUST_PROXY: z.enum(['0', '1']).default('0'),
  WEB_FOLDER: z.string().optional(),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
});

export interface Config {
  readonly port: number;
  readonly host: string;
  readonly databaseUrl: string;
  readonly sessionSecret: string;
  readonly demo: boolean;
  readonly trustProxy: boolean;
  readonly webFolder: string | undefined;
  readonly logLevel: string;
}

/**
 * Reads the configuration from environment variables.
 * @throws Error with one line a variable that is missing or wrong
 */
export function readConfig(environment: Readonly<Record<string, string | undefined>>): Config {
  const parsed = configSchema.safeParse(environment);
  if (!parsed.success) {
    const lines = parsed.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`);
    throw new Error(`The server cannot start with this configuration:\n${lines.join('\n')}`);
  }
  const { data } = parsed;
  return {
    port: data.PORT,
    host: data.HOST,
    databaseUrl: data.DATABASE_URL,
    sessionSecret: data.SESSION_SECRET,
    demo: data.DEMO === '1',
    trustProxy: data.TRUST_PROXY === '1',
    webFolder: data.WEB_FOLDER,
    logLevel: data.LOG_LEVEL,
  };
}
