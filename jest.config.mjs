export default {
  maxWorkers: 2,
  // No test asserts a time; on a busy machine a form of many fields takes its seconds.
  testTimeout: 30_000,
  projects: ['core', 'server', 'standins', 'web'].map((name) => `<rootDir>/packages/${name}/jest.config.mjs`),
};
