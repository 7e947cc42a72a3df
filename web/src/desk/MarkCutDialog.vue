<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Plan, useFaults } from '../api'
import type { ProjectOnDesk } from '../project'
import { LengthText, PlainDialog } from '../shared'

/** Asks whether the boards of a plan are cut, and says what then goes on the rack and off it. */
const props = defineProps<{ plan: Plan; desk: ProjectOnDesk }>()
const open = defineModel<boolean>({ required: true })
const busy = ref(false)
const faults = useFaults('plan')
const layouts = computed(() => props.plan.materials.flatMap((m) => m.layouts))
const kept = computed(() =>
  layouts.value.flatMap((one) =>
    one.keep.map((rest) => ({ stock: one.stock, count: one.count, ...rest })),
  ),
)
const used = computed(() => layouts.value.flatMap((one) => one.rack_numbers))

async function mark() {
  busy.value = true
  const outcome = await props.desk.markCut('cut')
  busy.value = false
  if (faults.settle(outcome)) open.value = false
}
</script>

<template>
  <PlainDialog v-model="open" title="Are these boards cut?">
    <template v-if="kept.length">
      <p>These offcuts go onto the rack, each with a number:</p>
      <ul>
        <li v-for="(one, index) in kept" :key="index">
          <span class="called">{{ one.stock }}</span>, <LengthText :length="one.length" /><template
            v-if="one.width"
            >, <LengthText :length="one.width" /> wide</template
          ><template v-if="one.count > 1">, {{ one.count }} of them</template>
        </li>
      </ul>
    </template>
    <p v-else>No offcut is large enough to keep.</p>
    <p v-if="used.length">
      Board{{ used.length > 1 ? 's' : '' }} {{ used.join(', ') }} come{{
        used.length > 1 ? '' : 's'
      }}
      off the rack.
    </p>
    <p class="quiet">The plan then stays as it is. You can take it back.</p>
    <p v-for="message in faults.at('plan')" :key="message" role="alert" class="text-error">
      {{ message }}
    </p>

    <template #acts>
      <v-btn @click="open = false">Not yet</v-btn>
      <v-btn color="primary" variant="flat" :loading="busy" @click="mark">They are cut</v-btn>
    </template>
  </PlainDialog>
</template>
