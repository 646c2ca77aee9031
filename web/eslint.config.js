import js from '@eslint/js';
import access from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['dist', 'dist.new', 'src/api/schema.generated.ts'] },
  js.configs.recommended,
  ...ts.configs.strictTypeChecked,
  hooks.configs.flat.recommended,
  access.flatConfigs.recommended,
  {
    languageOptions: {
      globals: globals.browser,
      parserOptions: {
        projectService: { allowDefaultProject: ['eslint.config.js'] },
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
    },
  },
  {
    files: ['src/**'],
    ignores: ['src/api/changed.ts', 'src/**/*.test.*'],
    rules: {
      'no-restricted-properties': [
        'error',
        { property: 'invalidateQueries', message: 'An answer on its way would count as new: use api/changed.' },
        { property: 'setQueryData', message: 'An older answer on its way would replace it: use api/changed.' },
      ],
    },
  },
  { files: ['eslint.config.js'], ...ts.configs.disableTypeChecked },
);
