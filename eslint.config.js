import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

export default ts.config(
  {
    ignores: [
      '**/dist/**',
      '**/dist-types/**',
      'node_modules/**',
      '.fairwatt/**',
      '*.cjs',
      'eslint.config.js',
      'web/vite.config.ts',
      'bench/bare-page/**',
    ],
  },
  js.configs.recommended,
  ts.configs.strictTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        project: 'tsconfig.lint.json',
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true, allowNullish: true }],
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/no-unnecessary-condition': 'off',
      // There are no enums (erasableSyntaxOnly), and few classes: these two cost a third of the whole run and find
      // nothing.
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', args: 'after-used' }],
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.object.name="Math"][callee.property.name="random"]',
          message: 'Randomness comes in as an argument.',
        },
      ],
    },
  },
  {
    files: ['web/**/*.tsx', 'web/**/*.ts'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // What is not there after all fails a test, a bench or the making of the demo anyway.
    files: ['**/*.test.ts', '**/*.test-help.ts', 'tests/**', 'e2e/**', 'bench/**', 'demo/**'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  { files: ['**/*.test.ts'], rules: { '@typescript-eslint/no-unsafe-assignment': 'off' } },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.test-help.ts'],
    rules: { 'no-restricted-globals': ['error', 'Date', 'fetch', 'setTimeout', 'process', 'window', 'document'] },
  },
);
