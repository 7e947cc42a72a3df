<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useQueryClient } from '@tanstack/vue-query'
import { ref, shallowRef, watch } from 'vue'
import { api, formOf, outcomeOf, type PricesReading, type Yard } from '../api/client'
import { useFaults } from '../api/faults'
import FaultList from './FaultList.vue'

const open = defineModel<boolean>({ required: true })
const queries = useQueryClient()
const file = shallowRef<File>()
const whole = ref(false)
const reading = ref<PricesReading>()
const { problems, settle, clear } = useFaults('')
const busy = ref(false)

watch(open, () => {
  file.value = undefined
  reading.value = undefined
  clear()
})

async function chosen(event: Event) {
  const picked = (event.target as HTMLInputElement).files?.[0]
  reading.value = undefined
  clear()
  file.value = picked
  whole.value = Boolean(picked?.name.toLowerCase().endsWith('.json'))
  if (!picked || whole.value) return
  busy.value = true
  const outcome = await outcomeOf<PricesReading>(
    api.POST('/api/reading/prices-file', {
      body: { file: '' },
      bodySerializer: () => formOf({ file: picked }),
    }),
  )
  busy.value = false
  if (settle(outcome)) {
    reading.value = outcome.data
    problems.value = outcome.data.problems
  }
}

async function take() {
  const picked = file.value
  if (!picked) return
  busy.value = true
  const body = { change_id: newId(), file: '' }
  const bodySerializer = () => formOf({ change_id: body.change_id, file: picked })
  const outcome = await outcomeOf<Yard | Yard[]>(
    whole.value
      ? api.POST('/api/yards/import', { body, bodySerializer })
      : api.POST('/api/yards/import-prices', { body, bodySerializer }),
  )
  busy.value = false
  if (settle(outcome)) {
    await queries.invalidateQueries()
    open.value = false
  }
}

function some(names: string[]): string {
  const shown = names.slice(0, 4).join(', ')
  return names.length > 4 ? `${shown} and ${names.length - 4} more` : shown
}
</script>

<template>
  <v-dialog v-model="open" max-width="680" scrollable>
    <v-card title="Import prices">
      <v-card-text>
        <p class="quiet mb-3">
          A price list (CSV or XLSX with a header: yard, stock, length, price …), or a whole yard as
          JSON.
        </p>
        <label class="pick">
          <span class="said-only">Price list file</span>
          <input type="file" accept=".csv,.tsv,.txt,.xlsx,.json" @change="chosen" />
        </label>
        <FaultList
          :problems="problems"
          :lead="`Nothing is imported: ${problems.length} thing${problems.length === 1 ? '' : 's'} to mend.`"
        />
        <p v-if="whole && !problems.length">
          A yard file: a yard of the same name becomes what the file says. You can undo it there.
        </p>
        <section v-for="yard in reading?.yards" :key="yard.yard" class="yard">
          <h3 class="called">{{ yard.yard }}{{ yard.known ? '' : ', a new yard' }}</h3>
          <p v-if="yard.new.length">
            <strong>{{ yard.new.length }} new</strong> {{ some(yard.new) }}
          </p>
          <p v-if="yard.changed.length">
            <strong>{{ yard.changed.length }} changed</strong> {{ some(yard.changed) }}
          </p>
          <p v-if="yard.same">
            <strong>{{ yard.same }} the same</strong>
          </p>
          <p v-if="yard.gone.length">
            <strong>{{ yard.gone.length }} vanish</strong> {{ some(yard.gone) }}
          </p>
        </section>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="open = false">Cancel</v-btn>
        <v-btn
          color="primary"
          variant="flat"
          :disabled="!(reading?.yards.length || (whole && file))"
          :loading="busy"
          @click="take"
        >
          Take these prices
        </v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.yard {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding: 8px 0;
}

.yard h3 {
  margin: 0 0 4px;
  font-size: 1rem;
}

.yard p {
  margin: 2px 0;
}

.pick {
  display: block;
  margin-bottom: 8px;
}
</style>
