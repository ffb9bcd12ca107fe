export default {
  maxWorkers: 2,
  projects: ['core', 'server', 'standins', 'web'].map((name) => `<rootDir>/packages/${name}/jest.config.mjs`),
};
