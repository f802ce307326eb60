import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import typescript from 'typescript-eslint'
import parser from 'vue-eslint-parser'

export default typescript.config(
  { ignores: ['dist', 'target', 'node_modules', 'src/api/schema.ts', 'public'] },
  ...typescript.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue', '**/*.ts'],
    languageOptions: { parser, parserOptions: { parser: typescript.parser, sourceType: 'module' } },
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
    },
  },
  prettier,
)
