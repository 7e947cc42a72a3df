<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Plan } from '../api/client'
import { useFaults } from '../api/faults'
import LengthText from '../shared/LengthText.vue'
import type { ProjectOnDesk } from './useProject'

const props = defineProps<{ plan: Plan; desk: ProjectOnDesk }>()
const open = ref(false)
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
  <v-btn v-if="layouts.length && plan.stage !== 'cut'" size="small" @click="open = true"
    >Mark as cut</v-btn
  >
  <v-dialog v-model="open" max-width="480" aria-label="Are these boards cut?">
    <v-card title="Are these boards cut?">
      <v-card-text>
        <template v-if="kept.length">
          <p>These offcuts go onto the rack, each with a number:</p>
          <ul>
            <li v-for="(one, index) in kept" :key="index">
              <span class="called">{{ one.stock }}</span>,
              <LengthText :length="one.length" /><template v-if="one.width"
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
      </v-card-text>
      <v-card-actions>
        <v-btn @click="open = false">Not yet</v-btn>
        <v-btn color="primary" variant="flat" :loading="busy" @click="mark">They are cut</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
