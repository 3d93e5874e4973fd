const transform = (tsx) => ({
  '^.+\\.[jt]sx?$': [
    '@swc/jest',
    {
      swcrc: false,
      jsc: {
        target: 'es2023',
        parser: { syntax: 'typescript', decorators: true, tsx },
        transform: {
          legacyDecorator: true,
          decoratorMetadata: true,
          useDefineForClassFields: false,
          react: { runtime: 'automatic' },
        },
      },
      module: { type: 'commonjs' },
    },
  ],
});

const project = (name) => ({
  displayName: name,
  rootDir: `<rootDir>/${name}`,
  testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}', '<rootDir>/testing/**/*.test.ts'],
  transform: transform(name === 'web'),
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  transformIgnorePatterns: [
    '/node_modules/(?!(@nestjs|pure-rand|comlink|idb|ts-graphviz|@ts-graphviz|@noble|tinyqueue)/)',
  ],
  testEnvironmentOptions: { customExportConditions: ['source', 'node', 'node-addons'] },
  modulePathIgnorePatterns: ['/dist/', '/dist-testing/'],
  ...(name === 'e2e'
    ? { setupFilesAfterEnv: ['<rootDir>/src/each-file.ts'], testPathIgnorePatterns: ['/node_modules/', '/src/house/'] }
    : {}),
});

/** The commands, the database and its folders, tried as several users of the system. */
const house = {
  ...project('e2e'),
  displayName: 'house',
  testPathIgnorePatterns: ['/node_modules/'],
  testMatch: ['<rootDir>/src/house/*.test.ts'],
  setupFilesAfterEnv: [],
};

/** One project per workspace; the server's and the interface's tests start their own database and browser. */
export default {
  testTimeout: 30_000 * Math.max(1, Number(process.env.YUNTA_OFTEN ?? 1)),
  forceExit: true,
  projects: [...['core', 'cli', 'server', 'web', 'e2e'].map(project), house],
};
