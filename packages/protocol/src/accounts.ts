import { z } from 'zod';

export const accountSchema = z.object({ id: z.uuid(), name: z.string(), email: z.string() });

export const sessionSchema = z.object({
  account: accountSchema.nullable(),
  /** Whether the demo teacher can sign in with one click. */
  demo: z.boolean(),
});
export type Session = z.infer<typeof sessionSchema>;

const email = z
  .string()
  .trim()
  .toLowerCase()
  .max(200)
  .pipe(z.email({ error: 'Please give an e-mail address such as name@school.example.' }));
const password = z
  .string()
  .min(10, { error: 'A password needs at least 10 characters.' })
  .max(200, { error: 'A password can have at most 200 characters.' });

export const signUpSchema = z.object({
  name: z
    .string()
    .trim()
    .min(1, { error: 'Please give a name.' })
    .max(100, { error: 'A name can have at most 100 characters.' }),
  email,
  password,
});
export type SignUp = z.infer<typeof signUpSchema>;

export const signInSchema = z.object({
  email,
  password: z
    .string()
    .min(1, { error: 'Please give your password.' })
    .max(200, { error: 'A password can have at most 200 characters.' }),
});
export type SignIn = z.infer<typeof signInSchema>;
