import prettier from '@vue/eslint-config-prettier/skip-formatting'
import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'
import vue from 'eslint-plugin-vue'
import vuetify from 'eslint-plugin-vuetify'

export default defineConfigWithVueTs(
  { ignores: ['dist/**', 'src/api/schema.d.ts', 'node_modules/**'] },
  vue.configs['flat/recommended'],
  vuetify.configs['flat/recommended'],
  vueTsConfigs.recommended,
  { rules: { 'vue/multi-word-component-names': 'off' } },
  prettier,
)
