<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import type { Trip } from '../api/client'
import type { TripAtYard } from './useTrip'

/** What has to be said of a trip: the connection, refusals, what a new plan changed. */
const props = defineProps<{ at: TripAtYard; trip: Trip }>()
const { offline, planning, unsent, refusals, gone } = props.at
const heard = useSessionStorage(`grain-tally:trip-heard-${props.trip.project}`, '')
</script>

<template>
  <p v-if="trip.finished" class="told" role="status">
    This trip is finished.
    <RouterLink :to="`/trips/${trip.id}/receipt`">To its receipt</RouterLink>
  </p>
  <p v-if="gone" class="told wrong" role="alert">
    {{ gone }}. <button type="button" class="act" @click="at.startOver()">Begin anew</button>
  </p>
  <p v-if="offline" class="told" role="status">
    No connection. Ticks are kept on this phone and sent when it returns<template
      v-if="unsent.length"
      >; money counts {{ unsent.length }} of them in, weight does not, and what is missing is
      planned around then</template
    >.
  </p>
  <p v-for="(one, n) in refusals" :key="n" class="told wrong" role="alert">
    {{ one.message }}
    <button type="button" class="act" @click="refusals.splice(n, 1)">I see</button>
  </p>
  <p v-if="trip.stale" class="told">
    {{ trip.project_name }} was changed at the desk since.
    <button type="button" class="act" @click="at.renew()">Plan it anew from here</button>
  </p>
  <p v-if="planning" class="told" role="status">Planning from what is there …</p>
  <div v-else-if="trip.said && trip.said !== heard" class="told" role="status">
    <strong>Planned anew:</strong> {{ trip.said }}.
    <div class="answers">
      <button
        v-if="trip.said_by"
        type="button"
        class="act"
        @click="at.tell('undone', { undoes: trip.said_by })"
      >
        Undo
      </button>
      <button type="button" class="act" @click="heard = trip.said">I see</button>
    </div>
  </div>
  <p v-for="one in trip.left_out" :key="one" class="told wrong">Not to be had: {{ one }}</p>
</template>

<style scoped>
.told {
  margin: 0;
  padding: 10px 14px 8px;
  border-left: 5px solid rgb(var(--v-theme-primary));
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  background: rgb(var(--v-theme-selected));
}

.told.wrong {
  border-left-color: rgb(var(--v-theme-error));
  background: transparent;
}

.answers {
  display: flex;
  justify-content: flex-end;
  margin-bottom: -8px;
}

.act {
  min-height: 48px;
  padding: 0 10px;
  font-weight: 650;
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
  text-underline-offset: 4px;
}
</style>
