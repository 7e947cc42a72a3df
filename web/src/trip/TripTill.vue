<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import LineName from './LineName.vue'
import type { LineNow } from './unsent'
import type { TripAtYard } from './useTrip'

const props = defineProps<{ at: TripAtYard; lines: LineNow[] }>()
const router = useRouter()
const putAway = ref(true)
const busy = ref(false)
const fault = ref('')
const sure = ref(false)
const trip = computed(() => props.at.trip.value)
const missing = computed(() => props.lines.filter((line) => line.toTake > 0))
const extra = computed(() => props.lines.filter((line) => line.put_back > 0))

async function finish() {
  const id = trip.value?.id
  busy.value = true
  fault.value = await props.at.finish(putAway.value)
  busy.value = false
  if (!fault.value) await router.push(`/trips/${id}/receipt`)
}

async function callOff() {
  const project = trip.value?.project
  if (await props.at.callOff()) await router.push(`/projects/${project}/list`)
  else fault.value = 'there is no connection: call it off when it returns'
}
</script>

<template>
  <section v-if="trip" class="till" aria-label="At the till">
    <h2 v-if="missing.length">Not in your cart</h2>
    <ul v-if="missing.length">
      <li v-for="line in missing" :key="line.key">
        <span class="figure">{{ line.toTake }} ×</span> <LineName :line="line" />
      </li>
    </ul>
    <p v-else class="all">Everything is in your cart.</p>
    <template v-if="extra.length">
      <h2>To put back</h2>
      <ul>
        <li v-for="line in extra" :key="line.key">
          <span class="figure">{{ line.put_back }} ×</span> <LineName :line="line" />
        </li>
      </ul>
    </template>
    <p class="money">
      <span class="figure">{{ at.money.value.inCart }}</span> for what is in your cart, with tax
    </p>
    <p v-if="missing.length" class="quiet claim">{{ trip.claim }} for what is not in it yet.</p>
    <v-checkbox
      v-model="putAway"
      label="Boards go on my rack, the rest into the drawer: the project is then planned from them"
    />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <v-btn block height="54" color="primary" variant="flat" :loading="busy" @click="finish"
      >Paid: to the receipt</v-btn
    >
    <v-btn v-if="!sure" block height="48" variant="text" @click="sure = true"
      >Call the trip off …</v-btn
    >
    <div v-else class="sure">
      <span>All ticks of this trip are dropped.</span>
      <v-btn height="48" @click="sure = false">Go on with it</v-btn>
      <v-btn height="48" color="error" @click="callOff">Call it off</v-btn>
    </div>
  </section>
</template>

<style scoped>
.till {
  padding: 16px 18px 24px;
  display: grid;
  gap: 10px;
}

h2 {
  margin: 0;
  font-size: var(--text-large);
  font-stretch: var(--wide);
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  padding: 7px 0;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.all {
  margin: 0;
  color: rgb(var(--v-theme-proven));
  font-weight: 650;
}

.money {
  margin: 4px 0 0;
}

.claim {
  margin: 0;
}

.money .figure {
  font-size: var(--text-title);
}

.fault {
  margin: 0;
  color: rgb(var(--v-theme-error));
}

.sure {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
</style>
