import expo from 'eslint-config-expo/flat.js';
import { defineConfig } from 'eslint/config';

const hooks = [...new Set(expo.flatMap(({ rules = {} }) => Object.keys(rules)))].filter((rule) =>
  rule.startsWith('react-hooks/'),
);

export default defineConfig([
  { ignores: ['**/node_modules/**', '**/dist/**', '.build/**', '.data/**', '**/.expo/**', 'test-results/**'] },
  expo,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false },
      ],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      'import/no-unresolved': 'off', // the type checker says it, and knows the workspace
      'import/namespace': 'off',
      'import/no-named-as-default': 'off',
      'import/no-named-as-default-member': 'off', // as above; by itself a third of all linting
      'max-lines': ['warn', { max: 330, skipBlankLines: true, skipComments: true }],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    // Nothing here is a component: the analysis of hooks would be half of all linting.
    files: ['packages/**', 'apps/server/**', 'e2e/**', 'bench/**', 'scripts/**'],
    rules: Object.fromEntries(hooks.map((rule) => [rule, 'off'])),
  },
  {
    // Read by Node, where the whole environment is there; in the client's bundle it is not.
    files: ['apps/server/**', 'e2e/**', 'bench/**', 'scripts/**', '*.ts'],
    rules: { 'expo/no-dynamic-env-var': 'off' },
  },
  {
    files: [
      'bench/**',
      'scripts/**',
      'packages/core/src/cli/**',
      'apps/server/src/main.ts',
      'apps/server/src/rebuild.ts',
      'apps/server/src/contents.ts',
    ],
    rules: { 'no-console': 'off' },
  },
  {
    files: [
      '**/metro.config.js',
      '**/babel.config.js',
      '**/jest.config.js',
      '**/serviceWorker.js',
      '**/pack.js',
      '**/firstPage.js',
      '.dependency-cruiser.cjs',
    ],
    languageOptions: { globals: { __dirname: 'readonly' } },
  },
]);
