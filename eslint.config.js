import vue from 'eslint-plugin-vue';
import ts from 'typescript-eslint';

/** The only direction in which imports may go: app → engine → core, server → core. */
const arrow = (files, rooms, message, ignores = []) => ({
  files,
  ignores,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group: rooms, message }] }] },
});
const TESTS = ['**/*.test.ts'];
const IN_KERNEL_MEMORY = ['arena', 'kernels', 'picture', 'rows', 'bytes', 'transform'].map(
  (name) => `**/picture/${name}`,
);
const rooms = (...names) => names.flatMap((name) => [`**/${name}/**`, `**/${name}`]);

export default ts.config(
  { ignores: ['dist/', 'build/', 'node_modules/', 'src/kernels/', 'test-results/', 'playwright-report/'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
    rules: {
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/attributes-order': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/require-default-prop': 'off',
      'vue/no-v-html': 'error',
    },
  },
  {
    rules: {
      eqeqeq: 'error',
      'no-console': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  { files: ['src/app/**', 'src/engine/**'], rules: { 'no-console': 'error', 'no-undef': 'off' } },
  arrow(
    ['src/core/**'],
    [...rooms('engine', 'app', 'server'), 'vue', 'pinia', 'vuetify', 'comlink', 'idb', 'mediabunny', 'express'],
    'core knows nothing of the rooms around it.',
  ),
  arrow(
    ['src/core/execute/*.ts', 'src/core/plan/**/*.ts'],
    [...IN_KERNEL_MEMORY, '**/backends/**', ...rooms('engine', 'app', 'server')],
    'Plans and what walks them know nothing of where a backend holds its pictures.',
    TESTS,
  ),
  arrow(['src/engine/**'], [...rooms('app', 'server'), 'vue', 'pinia', 'vuetify'], 'engine may only import core.'),
  arrow(['src/server/**'], ['../engine/**', '../app/**'], 'server may only import types of core.'),
  arrow(['src/app/**'], [...rooms('server'), '**/engine/workers/**'], 'app talks to the engine through engine/client.'),
  {
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts', 'src/core/testing/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'navigator',
        'localStorage',
        'indexedDB',
        'fetch',
        'self',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Seeds are parameters.' },
        { object: 'Date', property: 'now', message: 'Times are parameters.' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Times are parameters.' },
      ],
    },
  },
);
