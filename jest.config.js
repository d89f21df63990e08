export default {
  testEnvironment: 'node',
  roots: [
    '<rootDir>/core',
    '<rootDir>/contract',
    '<rootDir>/plan',
    '<rootDir>/server',
    '<rootDir>/cli',
    '<rootDir>/web',
  ],
  testMatch: ['**/*.test.ts'],
  modulePathIgnorePatterns: ['/dist/', '/types/'],
  transform: { '^.+\\.ts$': '<rootDir>/scripts/jest-transform.mjs' },
  extensionsToTreatAsEsm: ['.ts'],
  testSequencer: '<rootDir>/scripts/jest-sequencer.mjs',
  testTimeout: 60000,
  // One less than there are cores is the usual; of two that is half.
  maxWorkers: '100%',
};
