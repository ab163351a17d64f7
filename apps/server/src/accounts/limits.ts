import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Database } from '../database/connect.ts';
import { HttpProblem } from '../http/problem.ts';

const quarterHour = 15 * 60;

export interface AttemptLimits {
  /** Counts one attempt to sign in. @throws HttpProblem 429 after too many */
  signIn(address: string, email: string): Promise<void>;
  signUp(address: string): Promise<void>;
}

/** Limits on guessing passwords and making accounts, kept in the database and so shared by all servers. */
export function attemptLimits({ pool }: Database): AttemptLimits {
  const limiter = (keyPrefix: string, points: number) =>
    new RateLimiterPostgres({
      storeClient: pool,
      tableName: 'rate_limits',
      tableCreated: true,
      keyPrefix,
      points,
      duration: quarterHour,
    });
  const signInsOfAddress = limiter('sign-in-address', 100);
  const signInsOfAccount = limiter('sign-in-account', 10);
  const signUpsOfAddress = limiter('sign-up', 30);
  return {
    async signIn(address, email) {
      await consume(signInsOfAddress, address);
      await consume(signInsOfAccount, `${address} ${email}`);
    },
    signUp: (address) => consume(signUpsOfAddress, address),
  };
}

async function consume(limiter: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    const minutes = Math.max(1, Math.ceil(error.msBeforeNext / 60_000));
    throw new HttpProblem(
      429,
      'tooManyAttempts',
      `Too many attempts; please wait ${minutes} minutes and try again.`,
    );
  }
}
