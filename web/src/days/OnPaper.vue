<script setup lang="ts">
import { FilesMenu, MenuOpener } from '../shared'

/** What of the days is taken away: the build sheet on paper, and a calendar file. */
const props = defineProps<{ project: string }>()
const zone = encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone)
const base = `/api/projects/${props.project}`
const files = [
  {
    title: 'Build sheet, PDF',
    href: (paper: string) => `${base}/build-sheet.pdf?paper=${paper}&zone=${zone}`,
  },
  { title: 'Calendar, ICS', href: () => `${base}/days.ics?zone=${zone}` },
]
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
