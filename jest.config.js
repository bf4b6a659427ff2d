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
const node = (name, roots) => ({
  displayName: name,
  testEnvironment: 'node',
  roots,
  transform: { '\\.tsx?$': swc },
  testMatch: ['**/*.test.ts'],
});

module.exports = {
  // For slow machines; nothing here is a timed test.
  testTimeout: 60_000,
  projects: [
    node('core', ['<rootDir>/packages']),
    node('server', ['<rootDir>/apps/server/src']),
    {
      displayName: 'client',
      preset: 'jest-expo',
      rootDir: 'apps/client',
      testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}'],
      // Its ES modules end in .mjs, which the preset does not translate.
      moduleNameMapper: {
        '^d3-path$': '<rootDir>/../../node_modules/d3-path/dist/d3-path.js',
        '^lucide-react-native/icons/(.*)$': '<rootDir>/../../node_modules/lucide-react-native/dist/cjs/icons/$1.js',
      },
      transformIgnorePatterns: [
        'node_modules/(?!((jest-)?react-native|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|@expo-google-fonts/.*|react-navigation|@react-navigation/.*|react-native-svg|react-native-paper|lucide-react-native|d3-.*|internmap|uuid|@reduxjs/toolkit|immer|react-redux|date-fns|comlink))',
      ],
    },
  ],
};
