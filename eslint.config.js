import js from '@eslint/js'
import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '**/test-results/**',
      '**/playwright-report/**',
      'coverage/**',
      // AssemblyScript, and an engine of before in one file.
      'core/wasm/**',
      'bench/baseline/**',
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      // Array and buffer indices in hot loops are bounded by the loop itself.
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false },
      ],
      'no-console': 'error',
      eqeqeq: ['error', 'always'],
    },
  },
  {
    // More than three things are named. Tests of properties and tables are called by position, and so are Express's handlers.
    ignores: [
      '**/*.test.{ts,tsx}',
      'server/src/app.ts',
      // What a path's parser calls.
      'core/src/io/read/svg/outline.ts',
    ],
    rules: { 'max-params': ['error', 3] },
  },
  { files: ['**/*.cjs'], languageOptions: { globals: { module: 'writable' } } },
  {
    files: ['scripts/**', 'bench/**', 'e2e/kills.ts', '**/*.mjs'],
    languageOptions: { globals: { process: 'readonly', console: 'readonly', URL: 'readonly' } },
    rules: { 'no-console': 'off' },
  },
  {
    // Components and hooks; what is neither has nothing in it for these rules, which read a file's whole flow.
    files: ['web/src/**/*.tsx', 'web/src/**/use-*.ts'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      // Ordinary drag and drop hands refs to elements while rendering.
      'react-hooks/refs': 'off',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/demo/**'],
    rules: {
      // Randomness and time come from outside, so that the same project always gives the same results.
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random' },
        { object: 'Date', property: 'now' },
      ],
    },
  },
  {
    // No module keeps results: a cache is handed in. Faces of pieces are no results, and loaded programs no cache.
    files: ['core/src/**/*.ts'],
    ignores: [
      '**/*.test.ts',
      '**/demo/**',
      'core/src/project/faces.ts',
      'core/src/base/geometry/clip.ts',
      'core/src/stages/sheets/nest/overlap/kernel.ts',
    ],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...[
          'VariableDeclaration[kind="let"]',
          'VariableDeclaration > VariableDeclarator > NewExpression[callee.name="WeakMap"]',
          'VariableDeclaration > VariableDeclarator > NewExpression[callee.name=/^(Map|Set|Cache)$/][arguments.length=0]',
        ].flatMap((what) =>
          ['Program', 'Program > ExportNamedDeclaration'].map((at) => ({
            selector: `${at} > ${what}`,
            message: 'A module keeps nothing: hand a cache in.',
          })),
        ),
      ],
    },
  },
)
