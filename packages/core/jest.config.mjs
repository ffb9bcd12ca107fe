import { notAsModules, swcTransform } from '../../jest.swc.mjs';

export default {
  displayName: 'core',
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  transform: swcTransform,
  transformIgnorePatterns: notAsModules,
  moduleNameMapper: {
    '^@sieve/core$': '<rootDir>/../core/src/index.ts',
    '^@sieve/core/(.*)$': '<rootDir>/../core/src/$1.ts',
    '^@sieve/contract$': '<rootDir>/../contract/src/index.ts',
  },
};
