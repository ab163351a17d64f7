import { hash, verify } from '@node-rs/argon2';

/** Argon2id (the package's default) with the parameters of OWASP's Password Storage Cheat Sheet (19 MiB, two passes, one lane). */
const options = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export const hashPassword = (password: string): Promise<string> => hash(password, options);

let decoy: Promise<string> | undefined;

/** Whether the password is right. An account that does not exist takes as long as one that does. */
export async function isRightPassword(stored: string | null | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('an account that does not exist');
  const isRight = await verify(stored ?? (await decoy), password);
  return isRight && typeof stored === 'string';
}
