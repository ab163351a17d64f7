import { afterEach, describe, expect, test } from '@jest/globals';
import { emptyScope } from '@yperkine/core';
import { currentVersion } from '@yperkine/demonstration';
import { accounts } from '../src/api/accounts.ts';
import { demonstrations } from '../src/api/demonstrations.ts';
import { Refusal, ServerAway } from '../src/api/http.ts';
import { library } from '../src/api/library.ts';
import { previewOf } from '../src/build/working/preview.ts';
import { readNumber } from '../src/parts/readNumber.ts';

describe('a typed number', () => {
  test.each([
    ['2.5', '2.5'],
    [' −3 ', '-3'],
    ['.5', '.5'],
    ['1E-3', '1E-3'],
  ])('“%s” is %s', (typed, value) => {
    expect(readNumber(typed)).toEqual({ value });
  });

  test('a decimal comma is answered by its correction', () => {
    expect(readNumber('1,5')).toEqual({
      message: 'Write the decimal mark as a point: 1.5.',
      correction: '1.5',
    });
  });

  test.each(['', 'two', '1.2.3', '1,2,3', '1e3'])('“%s” is answered by a sentence', (typed) => {
    expect(readNumber(typed)).toEqual({ message: 'Please type a number such as 2.5.' });
  });
});

describe('the preview under the field', () => {
  test.each([
    ['f(x) = 3x^2', 'f(x) = 3x^{2}'],
    ['v_max = 3', 'v_{\\mathrm{max}} = 3'],
    ['x/2', '\\frac{x}{2}'],
    ['f(x) = 3x +', null],
    ['2 3', null],
  ])('%s', (typed, latex) => {
    expect(previewOf(typed, emptyScope)).toBe(latex);
  });
});

describe('the server’s answers', () => {
  const realFetch = globalThis.fetch;
  afterEach(() => {
    globalThis.fetch = realFetch;
  });
  const answerWith = (status: number, body: unknown) => {
    globalThis.fetch = () => Promise.resolve(new Response(JSON.stringify(body), { status }));
  };

  test('a refusal brings its sentence and its field', async () => {
    answerWith(400, { error: { code: 'badRequest', message: 'A name is missing.', field: 'name' } });
    await expect(accounts.signUp({ name: '', email: '', password: '' })).rejects.toEqual(
      new Refusal(400, 'A name is missing.', 'name'),
    );
  });

  test('no answer, and a server without its database, both mean that it is away', async () => {
    globalThis.fetch = () => Promise.reject(new TypeError('failed to fetch'));
    await expect(library.page(null)).rejects.toBeInstanceOf(ServerAway);
    answerWith(503, { error: { code: 'unavailable', message: 'away' } });
    await expect(library.page(null)).rejects.toBeInstanceOf(ServerAway);
  });

  test('a stale save is an answer, not a failure', async () => {
    answerWith(409, { version: 4, format: currentVersion, since: [] });
    const save = { base: 1, changes: [] };
    expect(await demonstrations.save('id', save)).toEqual({
      stale: { version: 4, format: currentVersion, since: [] },
    });
    answerWith(200, { version: 2, changedAt: '2026-01-01T00:00:00.000Z' });
    expect(await demonstrations.save('id', save)).toMatchObject({ saved: { version: 2 } });
  });

  test('an answer of another shape is not believed', async () => {
    answerWith(200, { demonstrations: 'all of them' });
    await expect(library.page(null)).rejects.toThrow();
  });
});
