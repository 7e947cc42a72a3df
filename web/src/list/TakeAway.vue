<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import { computed } from 'vue'
import type { Project } from '../api'
import { FilesMenu, MenuOpener } from '../shared'

const props = defineProps<{ project: Project }>()
const base = computed(() => `/api/projects/${props.project.id}`)
const { copy, copied, isSupported } = useClipboard({ legacy: true })
const files = computed(() => [
  {
    title: 'Cut sheet, PDF',
    href: (paper: string) => `${base.value}/cut-sheet.pdf?paper=${paper}`,
  },
  {
    title: 'Shopping list, PDF',
    href: (paper: string) => `${base.value}/shopping-list.pdf?paper=${paper}`,
  },
  ...[
    ['Shopping list, XLSX', 'shopping-list.xlsx'],
    ['Shopping list, CSV', 'shopping-list.csv'],
    ['Shopping list, text', 'shopping-list.txt'],
    ['Parts, CSV', 'parts.csv'],
    ['Whole project, JSON', 'project.json'],
  ].map(([title, name]) => ({ title, href: () => `${base.value}/${name}` })),
  ...(isSupported.value
    ? [{ title: copied.value ? 'Copied' : 'Copy the list as text', press: copyList }]
    : []),
])

async function copyList() {
  const answer = await fetch(`${base.value}/shopping-list.txt`)
  if (answer.ok) await copy(await answer.text())
}
</script>

<template>
  <MenuOpener
    v-slot="{ opens }"
    :menu="FilesMenu"
    :of="{ called: 'Take away', files, papers: true }"
  >
    <v-btn v-bind="opens">Take away</v-btn>
  </MenuOpener>
</template>
