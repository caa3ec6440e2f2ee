import process from 'node:process'

const shared = {
  testEnvironment: '<rootDir>/tests/support/environment.mjs',
  // Jest looks each of these up anew wherever it is used: in the laws that took a fifth of the time.
  sandboxInjectedGlobals: ['Math', 'Map', 'Set', 'Object', 'Date', 'Number'],
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
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    '^server-only$': '<rootDir>/tests/support/empty.ts',
    '^@rushstack/ts-command-line$': '<rootDir>/tests/support/commandLine.ts',
  },
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
      testEnvironment: '<rootDir>/tests/support/browserEnvironment.mjs',
      moduleNameMapper: {
        ...shared.moduleNameMapper,
        '^puppeteer-core$': '<rootDir>/tests/support/puppeteer.ts',
      },
      testMatch: ['<rootDir>/tests/e2e/**/*.test.ts'],
      globalSetup: '<rootDir>/tests/support/openStages.ts',
      globalTeardown: '<rootDir>/tests/support/closeStages.ts',
    },
  ],
}
