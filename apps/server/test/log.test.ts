import { expect, test } from '@jest/globals';
import { DatabaseError } from 'sequelize';
import { createLogger } from '../src/log.ts';

const logged = (error: unknown): string => {
  let line = '';
  createLogger('warn', { write: (text) => void (line += text) }).error({ err: error }, 'a request failed');
  return line;
};

test('an error is logged with kind, message, code and stack', () => {
  const told = JSON.parse(logged(new TypeError('x is not a function'))) as { err: Record<string, string> };
  expect(told.err).toMatchObject({ type: 'TypeError', message: 'x is not a function' });
  expect(told.err.stack).toMatch(/log\.test\.ts/);
  expect(JSON.parse(logged('thrown'))).toMatchObject({ err: { type: 'string' } });
});

test('neither statements nor their values get into the log', () => {
  const original = Object.assign(new Error('invalid input syntax: "f(x) = secret"'), {
    code: '22P02',
    sql: 'INSERT INTO demonstrations …',
    parameters: ['f(x) = secret'],
    detail: 'Key (email)=(warden@tarn-valley.example)',
  });
  const line = logged(new DatabaseError(original as never));
  expect(line).toContain('"code":"22P02"');
  expect(line).not.toMatch(/secret|INSERT|warden/);
});
