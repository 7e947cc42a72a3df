<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import type { Cutting } from '../api'
import { NoticeLine } from '../shared'
import type { AtTheBench } from './useCutting'

/** What has to be said at the bench: the connection, refusals, what a new plan changed, what differs
 * at the desk. */
const props = defineProps<{ bench: AtTheBench; cutting: Cutting }>()
defineEmits<{ again: [] }>()
const { offline, planning, unsent, refusals, gone } = props.bench
const heard = useSessionStorage(`grain-tally:shop-heard-${props.cutting.project}`, '')
const seen = useSessionStorage(`grain-tally:shop-seen-${props.cutting.project}`, '')
</script>

<template>
  <NoticeLine v-if="gone" wrong>
    {{ gone }}.
    <template #acts><button type="button" @click="bench.startOver()">Begin anew</button></template>
  </NoticeLine>
  <NoticeLine v-if="offline">
    No connection. What you press is kept here<template v-if="unsent.length"
      >, {{ unsent.length }} so far,</template
    >
    and sent when it returns.
  </NoticeLine>
  <NoticeLine v-for="(one, n) in refusals" :key="n" wrong>
    {{ one.message }}
    <template #acts>
      <button v-if="one.event && one.event.kind !== 'cut'" type="button" @click="$emit('again')">
        Type it again
      </button>
      <button type="button" @click="refusals.splice(n, 1)">I see</button>
    </template>
  </NoticeLine>
  <NoticeLine v-if="planning">Planning around it …</NoticeLine>
  <NoticeLine v-else-if="cutting.said && cutting.said !== heard">
    <strong>Planned anew:</strong> {{ cutting.said }}.
    <template #acts>
      <button type="button" @click="bench.undo()">Undo</button>
      <button type="button" @click="heard = cutting.said">I see</button>
    </template>
  </NoticeLine>
  <NoticeLine v-if="cutting.missing.length" wrong>
    No board is there for {{ cutting.missing.join(', ') }}.
  </NoticeLine>
  <NoticeLine v-if="cutting.changed.length && cutting.changed.join() !== seen">
    <strong>Changed at the desk since:</strong> {{ cutting.changed.join('; ') }}. What is begun here
    stays as it was; put it away to cut by the new plan.
    <template #acts
      ><button type="button" @click="seen = cutting.changed.join()">I see</button></template
    >
  </NoticeLine>
</template>
