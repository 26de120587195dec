// Rules that need types: promises that nobody waits for, switches that leave something out. `npm run lint:types`
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['src/kernels/'] },
  {
    files: ['src/**/*.ts', 'scripts/**/*.ts', 'tests/**/*.ts', 'bench/**/*.ts', 'demo/**/*.ts'],
    languageOptions: {
      parser: ts.parser,
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    plugins: { '@typescript-eslint': ts.plugin },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
    },
  },
);
