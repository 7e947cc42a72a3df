<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

/** What of the days is taken away: the build sheet on paper, and a calendar file. */
const props = defineProps<{ project: string }>()
const paper = useLocalStorage('grain-tally:paper', 'letter')
const PAPERS = [
  { value: 'letter', title: 'Letter paper' },
  { value: 'a4', title: 'A4 paper' },
]
const zone = encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone)
const base = computed(() => `/api/projects/${props.project}`)
const files = computed(() => [
  {
    title: 'Build sheet, PDF',
    href: `${base.value}/build-sheet.pdf?paper=${paper.value}&zone=${zone}`,
  },
  { title: 'Calendar, ICS', href: `${base.value}/days.ics?zone=${zone}` },
])
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
