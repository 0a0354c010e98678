import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

const features = ['beginning', 'bench', 'blocks', 'clock', 'cutting', 'diagnosis', 'log', 'planning', 'projects', 'records', 'settings', 'shelf', 'time', 'trimming']

/** A feature may be entered only through its index, and nothing below may reach up. */
const doors = {
  patterns: [
    { group: features.map((f) => `@/features/${f}/*`), message: 'Enter a feature through its index.ts.' },
    { group: ['@/app/*'], message: 'Features and shared code do not reach up into the app.' },
  ],
}

export default tseslint.config(
  { ignores: ['dist', 'src/shared/api/schema.d.ts'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  { files: ['src/features/**', 'src/shared/**'], rules: { 'no-restricted-imports': ['error', doors] } },
  {
    files: ['src/shared/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [...doors.patterns, { group: ['@/features', '@/features/*'], message: 'Shared code knows no feature.' }] },
      ],
    },
  },
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/block-lang': ['error', { script: { lang: 'ts' } }],
      'vue/require-default-prop': 'off',
      'no-undef': 'off',
    },
  },
  prettier,
)
