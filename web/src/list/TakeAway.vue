<script setup lang="ts">
import { useClipboard, useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { Project } from '../api'

const props = defineProps<{ project: Project }>()
const paper = useLocalStorage('grain-tally:paper', 'letter')
const PAPERS = [
  { value: 'letter', title: 'Letter paper' },
  { value: 'a4', title: 'A4 paper' },
]
const base = computed(() => `/api/projects/${props.project.id}`)
const files = computed(() => [
  { title: 'Cut sheet, PDF', href: `${base.value}/cut-sheet.pdf?paper=${paper.value}` },
  { title: 'Shopping list, PDF', href: `${base.value}/shopping-list.pdf?paper=${paper.value}` },
  { title: 'Shopping list, XLSX', href: `${base.value}/shopping-list.xlsx` },
  { title: 'Shopping list, CSV', href: `${base.value}/shopping-list.csv` },
  { title: 'Shopping list, text', href: `${base.value}/shopping-list.txt` },
  { title: 'Parts, CSV', href: `${base.value}/parts.csv` },
  { title: 'Whole project, JSON', href: `${base.value}/project.json` },
])
const { copy, copied, isSupported } = useClipboard({ legacy: true })

async function copyList() {
  const answer = await fetch(`${base.value}/shopping-list.txt`)
  if (answer.ok) await copy(await answer.text())
}
</script>

<template>
  <v-menu :close-on-content-click="false">
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu">Take away</v-btn>
    </template>
    <v-list role="menu" aria-label="Take away">
      <v-list-item
        v-for="file in files"
        :key="file.title"
        role="menuitem"
        :href="file.href"
        :title="file.title"
      />
      <v-list-item
        v-if="isSupported"
        role="menuitem"
        :title="copied ? 'Copied' : 'Copy the list as text'"
        @click="copyList"
      />
      <v-divider />
      <v-list-item
        v-for="{ value, title } in PAPERS"
        :key="value"
        role="menuitemradio"
        :aria-checked="paper === value"
        :title="`${paper === value ? '✓ ' : ''}${title}`"
        @click="paper = value"
      />
    </v-list>
  </v-menu>
</template>
