import tseslint from 'typescript-eslint';
import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/types/**',
      '.data/**',
      '.test/**',
      '**/*.generated.ts',
      'web/vite.config.ts',
      'vitest.config.ts',
      'journeys/playwright.config.ts',
    ],
  },
  {
    files: ['**/*.mjs', '**/*.cjs'],
    ...js.configs.recommended,
    languageOptions: {
      globals: {
        console: false,
        process: false,
        URL: false,
        performance: false,
        setTimeout: false,
        clearTimeout: false,
        fetch: false,
        Buffer: false,
        AbortSignal: false,
        module: 'writable',
        structuredClone: false,
        document: false,
        localStorage: false,
        window: false,
        PerformanceObserver: false,
        HTMLElement: false,
        KeyboardEvent: false,
        Event: false,
      },
    },
  },
  ...tseslint.configs.strictTypeChecked.map((one) => ({ ...one, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { ignoreRestSiblings: true, varsIgnorePattern: '^_', argsIgnorePattern: '^_' },
      ],
      // Numbers in sentences are formatted on purpose; booleans and objects in them are still refused.
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
    },
  },
  {
    // Browser and server do not agree on the last bit of these: values/elementary.ts and values/power.ts have those that they agree on.
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts', 'core/src/testkit/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        "BinaryExpression[operator='**']",
        "MemberExpression[property.name='pow']",
        'MemberExpression[object.name="Math"][property.name=/^(a?(sin|cos|tan)h?|atan2|exp|expm1|log|log1p|log2|log10|cbrt|hypot)$/]',
      ],
    },
  },
  { files: ['web/**/*.tsx', 'web/**/*.ts'], ...reactHooks.configs.flat['recommended-latest'] },
);
