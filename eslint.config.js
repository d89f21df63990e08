import tseslint from 'typescript-eslint';
import vue from 'eslint-plugin-vue';
import globals from 'globals';

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/types/**',
      '**/node_modules/**',
      'data/**',
      'core/kernel/obstacle.ts',
      'test-results/**',
    ],
  },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser }, globals: globals.browser },
  },
  {
    rules: {
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
      'prefer-const': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      // What is taken out of an object to leave it out.
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      // A name of its own keeps the messages about a large inferred type short.
      '@typescript-eslint/no-empty-object-type': ['error', { allowInterfaces: 'with-single-extends' }],
      'vue/multi-word-component-names': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/attributes-order': 'off',
      'vue/require-default-prop': 'off',
    },
  },
  {
    files: [
      'scripts/**',
      'cli/**',
      'core/bench/**',
      'plan/bench/**',
      'server/bench/**',
      'e2e/**',
      'plan/scripts/**',
      '**/*.cjs',
    ],
    rules: { 'no-console': 'off' },
  },
  { files: ['**/*.cjs'], languageOptions: { globals: globals.node } },
);
