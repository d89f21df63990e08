export default {
  roots: [
    '<rootDir>/core',
    '<rootDir>/contract',
    '<rootDir>/plan',
    '<rootDir>/server',
    '<rootDir>/cli',
    '<rootDir>/web',
    '<rootDir>/scripts',
  ],
  testMatch: ['**/*.test.ts'],
  modulePathIgnorePatterns: ['/dist/', '/types/'],
  runner: '<rootDir>/scripts/unit/runner.mjs',
  globalSetup: '<rootDir>/scripts/jest-setup.mjs',
  testSequencer: '<rootDir>/scripts/jest-sequencer.mjs',
  // One less than there are cores is the usual; of two that is half.
  maxWorkers: '100%',
};
