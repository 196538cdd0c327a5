import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import globals from 'globals';
import tseslint from 'typescript-eslint';

const SPREAD_INTO_CALL = {
  selector:
    'CallExpression[callee.property.name=/^(push|unshift|splice|concat|min|max|hypot|of|apply|fromCharCode|fromCodePoint)$/] > SpreadElement',
  message: 'Use append, largest or smallest from core/geometry/lists.',
};

export default tseslint.config(
  { ignores: ['dist', 'node_modules', '.data', 'server/db/migrations'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser }, globals: globals.browser },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-require-imports': 'off',
      'no-undef': 'off',
      eqeqeq: 'error',
      'no-var': 'error',
      'prefer-const': 'error',
    },
  },
  {
    // a call takes no more arguments than the stack holds, and lists that come from a file are longer than that
    files: ['{core,contracts,server,web,cli,cutter-sim,demo}/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-syntax': ['error', SPREAD_INTO_CALL],
    },
  },
  {
    // what asks the pool inside a transaction waits for a connection while it holds one: enough of them starve each other
    files: ['server/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.testing.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        SPREAD_INTO_CALL,
        {
          selector:
            'CallExpression[callee.property.name="transaction"] > ArrowFunctionExpression :matches(Identifier[name=/^(db|lines)$/]:not(Property > Identifier.key), CallExpression > Identifier[name="services"])',
          message: 'Inside a transaction everything is asked of the transaction.',
        },
      ],
    },
  },
  prettier,
);
