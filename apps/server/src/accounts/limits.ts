import ipaddr from 'ipaddr.js';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Database } from '../database/connect.ts';
import { HttpProblem } from '../problem.ts';

const quarterHour = 15 * 60;

/** Tries in a quarter of an hour (common practice). */
const tries = {
  /** To sign in to one account from one network, and from everywhere. */
  ofAccountFromNetwork: 10,
  ofAccount: 50,
  /** From one network, to any account. */
  ofNetwork: 100,
  signUps: 30,
  demo: 300,
} as const;

export interface AttemptLimits {
  /**
   * Counts a try to sign in.
   * @returns what takes the count back when the password was right
   * @throws HttpProblem 429 after too many
   */
  signIn(address: string, email: string): Promise<() => Promise<void>>;
  signUp(address: string): Promise<void>;
  signInAsDemo(address: string): Promise<void>;
}

/**
 * Where somebody comes from: an IPv4 address, or the /64 that a household or school has of IPv6 (RFC 6177), since
 * each machine in it can take any of its addresses.
 */
export function networkOf(address: string): string {
  if (!ipaddr.isValid(address)) return 'unknown';
  const read = ipaddr.process(address);
  if (read.kind() === 'ipv4') return read.toString();
  const { parts } = read as ipaddr.IPv6;
  return `${parts
    .slice(0, 4)
    .map((part) => part.toString(16))
    .join(':')}::/64`;
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
  const ofNetwork = limiter('sign-in-network', tries.ofNetwork);
  const ofAccount = limiter('sign-in-account', tries.ofAccount);
  const ofAccountFromNetwork = limiter('sign-in-account-network', tries.ofAccountFromNetwork);
  const signUps = limiter('sign-up', tries.signUps);
  const demo = limiter('sign-in-demo', tries.demo);
  return {
    async signIn(address, email) {
      const network = networkOf(address);
      const counted: [RateLimiterPostgres, string][] = [
        [ofNetwork, network],
        [ofAccountFromNetwork, `${network} ${email}`],
        [ofAccount, email],
      ];
      for (const [limit, key] of counted) await consume(limit, key);
      return async () => {
        await Promise.all(counted.map(([limit, key]) => limit.reward(key)));
      };
    },
    signUp: (address) => consume(signUps, networkOf(address)),
    signInAsDemo: (address) => consume(demo, networkOf(address)),
  };
}

async function consume(limiter: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    const seconds = Math.max(1, Math.ceil(error.msBeforeNext / 1000));
    const minutes = Math.ceil(seconds / 60);
    throw new HttpProblem(
      429,
      'tooManyAttempts',
      `Too many attempts; please wait ${minutes} ${minutes === 1 ? 'minute' : 'minutes'} and try again.`,
      undefined,
      seconds,
    );
  }
}
