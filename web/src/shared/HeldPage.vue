<script setup lang="ts" generic="T extends { undo: string | null; redo: string | null }">
import { computed, defineAsyncComponent } from 'vue'
import type { Hold } from '../api'
import UndoRedo from './UndoRedo.vue'

const NowherePage = defineAsyncComponent(() => import('./NowherePage.vue'))

/** The page of a thing that is held: while it is fetched, when there is none, and when it could not
 * be loaded; with its steps back and forth. */
const props = defineProps<{
  held: Pick<Hold, 'missing' | 'isError' | 'refetch' | 'step'> & { thing: { value: T | undefined } }
  called: string
  fetching: string
}>()
const thing = computed(() => props.held.thing.value)
</script>

<template>
  <NowherePage v-if="held.missing.value" />
  <div v-else-if="held.isError.value && !thing" class="page" role="alert">
    <h1>{{ called }} could not be loaded</h1>
    <p class="quiet">The server does not answer. Nothing is lost.</p>
    <v-btn @click="held.refetch()">Try again</v-btn>
  </div>
  <div v-else-if="!thing" class="page quiet" role="status">{{ fetching }} …</div>
  <template v-else>
    <UndoRedo :thing="thing" :step="held.step" />
    <slot :thing="thing" />
  </template>
</template>
