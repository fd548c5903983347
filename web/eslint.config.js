import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['dist', 'node_modules', 'src/live/wire.gen.ts'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  prettier,
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/no-mutating-props': 'off', // editors and the mirror are shared controllers, not values
      '@typescript-eslint/no-non-null-assertion': 'off',
      // controls are the library's, in our look; what it has not is in shell/fields
      'vue/no-restricted-html-elements': [
        'error',
        ...Object.entries({
          input: 'v-text-field, v-checkbox or FilePick',
          select: 'v-select',
          textarea: 'v-textarea',
          button: 'v-btn',
          table: 'DataTable, or v-table for a few rows',
          dialog: 'v-dialog',
        }).map(([element, instead]) => ({ element, message: `Use ${instead}.` })),
      ],
    },
  },
  // the library's choice of files shows its own field; here a button of any look opens it
  { files: ['src/shell/fields/FilePick.vue'], rules: { 'vue/no-restricted-html-elements': 'off' } },
)
