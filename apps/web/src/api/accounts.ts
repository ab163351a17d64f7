import { sessionSchema, type SignIn, type SignUp } from '@yperkine/protocol';
import { ask, expectBody } from './http.ts';

export const accounts = {
  session: () => expectBody(sessionSchema, 'GET', '/session'),
  signIn: (form: SignIn) => expectBody(sessionSchema, 'POST', '/session', form),
  signInAsDemo: () => expectBody(sessionSchema, 'POST', '/session/demo'),
  signUp: (form: SignUp) => expectBody(sessionSchema, 'POST', '/accounts', form),
  signOut: () => ask('DELETE', '/session'),
};
