const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', decorators: true },
      transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
      target: 'es2022',
    },
    module: { type: 'commonjs' },
  },
];
const SLOW = '**/*.slow.test.ts';
const node = (name, roots, testMatch = ['**/*.test.ts', `!${SLOW}`]) => ({
  displayName: name,
  testEnvironment: 'node',
  roots,
  transform: { '\\.tsx?$': swc },
  testMatch,
});

module.exports = {
  // For slow machines; nothing here is a timed test.
  testTimeout: 300_000,
  // One less than there are cores would leave one of two idle.
  maxWorkers: '100%',
  testSequencer: '<rootDir>/scripts/slowFirst.cjs',
  projects: [
    node('core', ['<rootDir>/packages']),
    // Simulations: apart, so that a change of the core is tried in less than a minute; `npm test` runs them too.
    node('slow', ['<rootDir>/packages', '<rootDir>/bench'], [SLOW]),
    node('server', ['<rootDir>/apps/server/src']),
    {
      displayName: 'client',
      preset: 'jest-expo',
      rootDir: 'apps/client',
      testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}'],
      setupFilesAfterEnv: ['<rootDir>/src/testing/setup.ts'],
      // The preset looks for the client's translation settings where the tests were started, which is the root.
      transform: {
        '\\.[jt]sx?$': [
          'babel-jest',
          {
            caller: { name: 'metro', bundler: 'metro', platform: 'ios' },
            configFile: require.resolve('./apps/client/babel.config.js'),
          },
        ],
      },
      // Their ES modules end in .mjs, which the preset does not translate.
      moduleNameMapper: {
        // Of what is loaded late, forms need the judging only; the rest would bring the router into every test of a form.
        '/late$': '<rootDir>/src/ui/form/contractResolver.ts',
        '^(d3-[a-z-]+)$': '<rootDir>/../../node_modules/$1/dist/$1.js',
        '^lucide-react-native/icons/(.*)$': '<rootDir>/../../node_modules/lucide-react-native/dist/cjs/icons/$1.js',
      },
      transformIgnorePatterns: [
        'node_modules/(?!((jest-)?react-native|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|@expo-google-fonts/.*|react-navigation|@react-navigation/.*|react-native-svg|react-native-paper|lucide-react-native|d3-.*|internmap|uuid|@reduxjs/toolkit|immer|react-redux|date-fns|comlink))',
      ],
    },
  ],
};
