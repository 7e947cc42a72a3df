<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

/** A menu of what can be taken along, on the paper that is chosen in it. */
export interface Taken {
  title: string
  /** Where the file is, of a paper; or what is done instead. */
  href?: (paper: string) => string
  press?: () => void
}

defineProps<{ called: string; activator: HTMLElement; files: readonly Taken[]; papers?: boolean }>()
const open = defineModel<boolean>({ required: true })
const paper = useLocalStorage('grain-tally:paper', 'letter')
const PAPERS = [
  { value: 'letter', title: 'Letter paper' },
  { value: 'a4', title: 'A4 paper' },
]
</script>

<template>
  <v-menu
    v-model="open"
    :activator="activator"
    :open-on-click="false"
    :close-on-content-click="!papers"
  >
    <v-list role="menu" :aria-label="called">
      <v-list-item
        v-for="{ title, href, press } in files"
        :key="title"
        role="menuitem"
        :href="href?.(paper)"
        :title="title"
        @click="press?.()"
      />
      <v-divider v-if="papers" />
      <v-list-item
        v-for="{ value, title } in papers ? PAPERS : []"
        :key="value"
        role="menuitemradio"
        :aria-checked="paper === value"
        :title="`${paper === value ? '✓ ' : ''}${title}`"
        @click="paper = value"
      />
    </v-list>
  </v-menu>
</template>
