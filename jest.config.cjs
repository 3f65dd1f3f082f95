/** Projects: core beside its code, without anything else; services on a real MariaDB that scripts/test.mjs starts;
 *  start for the commands themselves, which start their own. */
const transform = {
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        target: 'es2022',
        transform: { react: { runtime: 'automatic' } },
      },
    },
  ],
};
const shared = { testEnvironment: 'node', transform, moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' } };

module.exports = {
  projects: [
    { ...shared, displayName: 'core', testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx'] },
    {
      ...shared,
      displayName: 'services',
      testMatch: ['<rootDir>/tests/services/**/*.test.ts'],
      setupFilesAfterEnv: ['<rootDir>/tests/services/patience.ts'],
    },
    {
      ...shared,
      displayName: 'events',
      testMatch: ['<rootDir>/tests/events/**/*.test.ts'],
      setupFilesAfterEnv: ['<rootDir>/tests/services/patience.ts'],
    },
    {
      ...shared,
      displayName: 'files',
      testMatch: ['<rootDir>/tests/files/**/*.test.ts'],
      setupFilesAfterEnv: ['<rootDir>/tests/services/patience.ts'],
    },
    {
      ...shared,
      displayName: 'start',
      testMatch: ['<rootDir>/tests/start/**/*.test.ts'],
      setupFilesAfterEnv: ['<rootDir>/tests/services/patience.ts'],
    },
  ],
};
