export default {
  testEnvironment: 'node',
  maxWorkers: '100%',
  // property tests take their time on a busy machine
  testTimeout: 30_000,
  extensionsToTreatAsEsm: ['.ts'],
  transform: { '^.+\\.ts$': '<rootDir>/scripts/jest-transform.js' },
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
};
