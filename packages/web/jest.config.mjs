import presets from 'jest-preset-angular/presets/index.js';

const esmInNodeModules = ['d3', 'd3-[a-z-]+', 'internmap', 'delaunator', 'robust-predicates'];

export default {
  ...presets.createCjsPreset(),
  displayName: 'web',
  testMatch: ['<rootDir>/src/**/*.spec.ts'],
  setupFilesAfterEnv: ['<rootDir>/src/test-setup.ts'],
  moduleNameMapper: {
    '^@sieve/core$': '<rootDir>/../core/src/index.ts',
    '^@sieve/core/(.*)$': '<rootDir>/../core/src/$1.ts',
    '^@sieve/contract$': '<rootDir>/../contract/src/index.ts',
  },
  transformIgnorePatterns: [
    `node_modules/(?!(.*\\.mjs$|@angular/common/locales/.*\\.js$|(${esmInNodeModules.join('|')})/))`,
  ],
};
