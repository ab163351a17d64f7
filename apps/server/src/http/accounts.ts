import { randomUUID } from 'node:crypto';
import { Router, type Request } from 'express';
import { signInSchema, signUpSchema, type Session } from '@yperkine/protocol';
import { UniqueConstraintError } from 'sequelize';
import type { AttemptLimits } from '../accounts/limits.ts';
import { hashPassword, isRightPassword } from '../accounts/passwords.ts';
import { begin, end } from '../accounts/session.ts';
import { demoAccount } from '../database/demo.ts';
import { AccountRow } from '../database/models.ts';
import { HttpProblem, notFound, readBody } from '../problem.ts';

/** Making accounts, signing in and out. */
export function accountRoutes(limits: AttemptLimits, demo: boolean): Router {
  const router = Router();

  const sessionOf = async (request: Request): Promise<Session> => {
    const { accountId } = request.session;
    const row = accountId ? await AccountRow.findByPk(accountId) : null;
    return { account: row && { id: row.id, name: row.name, email: row.email }, demo };
  };

  router.get('/session', async (request, response) => {
    response.json(await sessionOf(request));
  });

  router.post('/session', async (request, response) => {
    const { email, password } = readBody(signInSchema, request.body);
    const forgive = await limits.signIn(request.ip ?? '', email);
    const row = await AccountRow.findOne({ where: { email } });
    if (!(await isRightPassword(row?.passwordHash, password)) || !row) {
      throw new HttpProblem(401, 'wrongPassword', 'This e-mail address and password do not belong together.');
    }
    await forgive();
    await begin(request, row.id);
    response.json(await sessionOf(request));
  });

  router.post('/session/demo', async (request, response) => {
    if (!demo) throw notFound();
    await limits.signInAsDemo(request.ip ?? '');
    await begin(request, demoAccount.id, { isDemo: true });
    response.json(await sessionOf(request));
  });

  router.delete('/session', async (request, response) => {
    await end(request);
    response.clearCookie('yperkine').status(204).end();
  });

  router.post('/accounts', async (request, response) => {
    const { name, email, password } = readBody(signUpSchema, request.body);
    await limits.signUp(request.ip ?? '');
    const id = randomUUID();
    try {
      await AccountRow.create({ id, name, email, passwordHash: await hashPassword(password) });
    } catch (error) {
      if (!(error instanceof UniqueConstraintError)) throw error;
      throw new HttpProblem(
        409,
        'emailTaken',
        'There is already an account with this e-mail address.',
        'email',
      );
    }
    await begin(request, id);
    response.status(201).json(await sessionOf(request));
  });

  return router;
}
