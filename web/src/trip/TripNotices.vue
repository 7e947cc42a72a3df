<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import type { Trip } from '../api'
import { NoticeLine } from '../shared'
import type { TripAtYard } from './useTrip'

/** What has to be said of a trip: the connection, refusals, what a new plan changed. */
const props = defineProps<{ at: TripAtYard; trip: Trip }>()
const { offline, planning, unsent, refusals, gone } = props.at
const heard = useSessionStorage(`grain-tally:trip-heard-${props.trip.project}`, '')
</script>

<template>
  <NoticeLine v-if="trip.finished">
    This trip is finished.
    <RouterLink :to="`/trips/${trip.id}/receipt`">To its receipt</RouterLink>
  </NoticeLine>
  <NoticeLine v-if="gone" wrong>
    {{ gone }}.
    <template #acts><button type="button" @click="at.startOver()">Begin anew</button></template>
  </NoticeLine>
  <NoticeLine v-if="offline">
    No connection. Ticks are kept on this phone and sent when it returns<template
      v-if="unsent.length"
      >; money counts {{ unsent.length }} of them in, weight does not, and what is missing is
      planned around then</template
    >.
  </NoticeLine>
  <NoticeLine v-for="(one, n) in refusals" :key="n" wrong>
    {{ one.message }}
    <template #acts><button type="button" @click="refusals.splice(n, 1)">I see</button></template>
  </NoticeLine>
  <NoticeLine v-if="trip.stale">
    {{ trip.project_name }} was changed at the desk since.
    <template #acts
      ><button type="button" @click="at.renew()">Plan it anew from here</button></template
    >
  </NoticeLine>
  <NoticeLine v-if="planning">Planning from what is there …</NoticeLine>
  <NoticeLine v-else-if="trip.said && trip.said !== heard">
    <strong>Planned anew:</strong> {{ trip.said }}.
    <template #acts>
      <button
        v-if="trip.said_by"
        type="button"
        @click="at.tell('undone', { undoes: trip.said_by })"
      >
        Undo
      </button>
      <button type="button" @click="heard = trip.said">I see</button>
    </template>
  </NoticeLine>
  <NoticeLine v-for="one in trip.left_out" :key="one" wrong>Not to be had: {{ one }}</NoticeLine>
</template>
