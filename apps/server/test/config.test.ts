import { describe, expect, test } from '@jest/globals';
import { readConfig } from '../src/config.ts';

const right = { DATABASE_URL: 'postgres://localhost/x', SESSION_SECRET: 'x'.repeat(32) };

describe('the configuration', () => {
  test('comes from the environment, with a usual port and the demo off', () => {
    expect(readConfig(right)).toMatchObject({ port: 4280, demo: false, host: '127.0.0.1' });
    expect(readConfig({ ...right, PORT: '5000', DEMO: '1' })).toMatchObject({ port: 5000, demo: true });
  });
  test('says which variable is missing or wrong', () => {
    expect(() => readConfig({})).toThrow(/DATABASE_URL.*\nSESSION_SECRET/s);
    expect(() => readConfig({ ...right, PORT: 'eighty' })).toThrow(/PORT/);
    expect(() => readConfig({ ...right, SESSION_SECRET: 'short' })).toThrow(
      /SESSION_SECRET: must have at least 32/,
    );
  });
});
