import js from '@eslint/js'
import tseslint from 'typescript-eslint'
import hooks from 'eslint-plugin-react-hooks'
import prettier from 'eslint-config-prettier'

export default tseslint.config(
  { ignores: ['node_modules', '.next', 'next-env.d.ts', 'data', '.demo-data', '.test-data'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    plugins: { 'react-hooks': hooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
    },
  },
  {
    // The other rules read every file as React's compiler does, which takes longer than everything else; there
    // are components only here.
    files: ['src/ui/**', 'src/app/**'],
    rules: hooks.configs.recommended.rules,
  },
  {
    files: ['scripts/**', 'tests/bench/**', 'src/services/start/**', '.dependency-cruiser.cjs'],
    languageOptions: {
      globals: {
        console: 'readonly',
        process: 'readonly',
        module: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
      },
    },
    rules: { 'no-console': 'off' },
  },
  {
    files: ['src/**'],
    ignores: ['src/ui/frame/Link.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        { name: 'next/link', message: 'Use ui/frame/Link: it is not fetched ahead.' },
      ],
    },
  },
  {
    // The core is pure: the clock, the environment and randomness belong to the layers above it.
    files: ['src/core/**'],
    rules: {
      'no-restricted-globals': ['error', 'process', 'window', 'document', 'fetch', 'localStorage'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The core is deterministic: pass a seed.' },
        { object: 'Date', property: 'now', message: 'The core has no clock: pass the instant.' },
      ],
    },
  },
  prettier,
)
