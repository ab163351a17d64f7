const swc = [
  '<rootDir>/tests/transform.mjs',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: true },
      transform: { react: { runtime: 'automatic' } },
      target: 'es2022',
    },
    module: { type: 'es6' },
  },
];

const shared = {
  rootDir: import.meta.dirname,
  transform: { '^.+\\.tsx?$': swc },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  testEnvironment: 'node',
  transformIgnorePatterns: ['/node_modules/(?!@yperkine)'],
};

/** @type {import('jest').Config} */
export default {
  maxWorkers: 2,
  projects: [
    {
      ...shared,
      displayName: 'mathematics',
      testMatch: ['<rootDir>/packages/**/*.test.ts', '<rootDir>/apps/{ask,web}/**/*.test.ts'],
    },
    {
      ...shared,
      displayName: 'server',
      testMatch: ['<rootDir>/apps/server/**/*.test.ts', '<rootDir>/tests/faults/*.test.ts'],
    },
    {
      ...shared,
      displayName: 'start',
      testMatch: ['<rootDir>/tests/start/*.test.ts'],
    },
  ],
};
