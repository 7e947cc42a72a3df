import prettier from '@vue/eslint-config-prettier/skip-formatting'
import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'
import vue from 'eslint-plugin-vue'
import vuetify from 'eslint-plugin-vuetify'

/** The folders of src/ stand on floors. Each may use those below it, through their index.ts. */
const FLOORS = [
  ['api'],
  ['shared'],
  ['drawing'],
  ['project'],
  ['imports', 'tape'],
  ['shapes'],
  ['measures'],
  ['list'],
  ['desk', 'trip', 'shop', 'days'],
  ['account', 'projects', 'yards', 'rack', 'materials', 'sizes', 'tools'],
  ['places'],
]
const DEEP = {
  regex: '^\\.{1,2}/(\\.\\./)*(?!testing/)[a-z]+/',
  message: 'A folder is entered through its index.ts.',
}

/** What may not stand in an import of a folder: those beside it and above, and the inside of any. */
function floorOf(folder, height) {
  const closed = FLOORS.slice(height).flat()
  const others = closed.filter((one) => one !== folder)
  return {
    name: `floors/${folder}`,
    files: [`src/${folder}/**/*.{ts,vue}`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            DEEP,
            { regex: '^\\.\\./testing', message: 'What tests share is for tests alone.' },
            ...(others.length
              ? [
                  {
                    regex: `^\\.\\./(${others.join('|')})(/|$)`,
                    message: `${folder} stands below it, or beside it.`,
                  },
                ]
              : []),
          ],
        },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: 'ImportExpression[source.value=/^\\.\\.\\u002f/]',
          message: 'The folder it lies in says what comes late: import it from there.',
        },
      ],
    },
  }
}

export default defineConfigWithVueTs(
  { ignores: ['dist/**', 'src/api/schema.d.ts', 'node_modules/**'] },
  vue.configs['flat/recommended'],
  vuetify.configs['flat/recommended'],
  vueTsConfigs.recommended,
  { rules: { 'vue/multi-word-component-names': 'off' } },
  {
    name: 'floors/roof',
    files: ['src/*.{ts,vue}'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ ...DEEP, regex: '^\\./(?!styles/)[a-z]+/' }] },
      ],
    },
  },
  ...FLOORS.flatMap((floor, height) => floor.map((folder) => floorOf(folder, height))),
  prettier,
)
