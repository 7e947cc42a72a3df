<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, outcomeOf, type AskedYard, type Yard } from '../api/client'
import { useFaults } from '../api/faults'
import FaultList from '../imports/FaultList.vue'
import type { YardInHand } from './useYard'

const props = defineProps<{ yard: Yard; held: YardInHand }>()
const open = defineModel<boolean>({ required: true })
const asked = ref<AskedYard>()
const taken = ref<string[]>([])
const busy = ref(false)
const offline = ref(false)
const { problems, settle, clear } = useFaults('')

async function ask() {
  asked.value = undefined
  clear()
  busy.value = true
  const outcome = await outcomeOf<AskedYard>(
    api.POST('/api/yards/{yard_id}/ask', { params: { path: { yard_id: props.yard.id } } }),
  )
  busy.value = false
  offline.value = outcome.kind === 'offline'
  if (settle(outcome)) {
    asked.value = outcome.data
    taken.value = outcome.data.changed.filter((one) => !one.doubt).map((one) => one.line)
  }
}

watch(open, (now) => {
  if (now) void ask()
})

async function take() {
  if (!asked.value) return
  const quotes = asked.value.changed.filter((one) => taken.value.includes(one.line))
  busy.value = true
  const outcome = await props.held.takeQuotes(asked.value.as_of, quotes)
  busy.value = false
  if (settle(outcome)) open.value = false
}
</script>

<template>
  <v-dialog v-model="open" max-width="720" scrollable :aria-label="`What ${yard.name} says today`">
    <v-card :title="`What ${yard.name} says today`">
      <v-card-text>
        <p v-if="busy && !asked" role="status" class="quiet">Asking {{ yard.price_service }} …</p>
        <p v-if="offline" role="alert"><strong class="text-error">No connection.</strong></p>
        <FaultList :problems="problems" lead="Nothing is changed:" />
        <template v-if="asked">
          <p class="quiet">
            Prices of {{ asked.as_of
            }}<template v-if="asked.same">, {{ asked.same }} as they were</template>. Nothing is
            changed until you take it.
          </p>
          <table v-if="asked.changed.length" class="ruled">
            <thead>
              <tr>
                <th><span class="said-only">take it</span></th>
                <th>stock</th>
                <th class="to-right">on your list</th>
                <th class="to-right">today</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in asked.changed" :key="one.line">
                <td>
                  <v-checkbox-btn
                    v-model="taken"
                    density="compact"
                    :value="one.line"
                    :aria-label="`Take ${one.name}`"
                  />
                </td>
                <td class="called">
                  {{ one.name }}
                  <span v-if="one.doubt" class="doubt">{{ one.doubt }}: look twice</span>
                </td>
                <td class="to-right quiet">{{ one.before }}</td>
                <td class="to-right figure">{{ one.after }}</td>
              </tr>
            </tbody>
          </table>
          <p v-for="one in asked.refused" :key="one.name" class="refused">
            <strong>{{ one.name }}</strong>: {{ one.reason }}
          </p>
          <p v-if="asked.unknown.length" class="quiet">
            Not sold there: {{ asked.unknown.join(', ') }}.
          </p>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-btn v-if="!asked && !busy" @click="ask">Ask again</v-btn>
        <v-btn @click="open = false">Leave all as it is</v-btn>
        <v-btn
          v-if="asked"
          color="primary"
          variant="flat"
          :disabled="!taken.length"
          :loading="busy"
          @click="take"
          >Take {{ taken.length }}</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
td {
  vertical-align: middle;
  padding-top: 1px !important;
  padding-bottom: 1px !important;
}

.doubt {
  display: block;
  font-weight: 500;
  font-size: var(--text-small);
  color: rgb(var(--v-theme-error));
}

.refused {
  border-left: 4px solid rgb(var(--v-theme-error));
  padding-left: 10px;
}
</style>
