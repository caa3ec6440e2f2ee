import process from 'node:process'

const shared = {
  testEnvironment: 'node',
  transform: {
    '^.+\\.(t|j)sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
  },
  transformIgnorePatterns: ['node_modules/(?!(uuid|iron-session|uncrypto)/)'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1', '^server-only$': '<rootDir>/tests/support/empty.ts' },
}

// Databases of tests are made again: none of them is flushed to the disk.
process.env.ATELIER_UNFLUSHED ??= '1'

export default {
  // A busy machine may stand still for half a minute, and says nothing about the code by it.
  testTimeout: 120_000,
  testSequencer: '<rootDir>/tests/support/sequencer.mjs',
  projects: [
    { ...shared, displayName: 'core', testMatch: ['<rootDir>/tests/core/**/*.test.ts'] },
    { ...shared, displayName: 'services', testMatch: ['<rootDir>/tests/services/**/*.test.ts'] },
    {
      ...shared,
      displayName: 'e2e',
      testMatch: ['<rootDir>/tests/e2e/**/*.test.ts'],
      globalSetup: '<rootDir>/tests/support/openStages.ts',
      globalTeardown: '<rootDir>/tests/support/closeStages.ts',
    },
  ],
}
