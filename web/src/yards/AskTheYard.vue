<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, type AskedYard, outcomeOf, useFaults, type Yard } from '../api'
import { FaultList } from '../imports'
import { PlainDialog, RuledTable } from '../shared'
import type { YardInHand } from './useYard'

const COLUMNS = [
  { name: 'take', title: 'take it', unseen: true },
  { name: 'name', title: 'stock', look: 'called' },
  { name: 'before', title: 'on your list', right: true, look: 'quiet' },
  { name: 'after', title: 'today', right: true, look: 'figure' },
]
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
  <PlainDialog v-model="open" :title="`What ${yard.name} says today`" :width="720">
    <p v-if="busy && !asked" role="status" class="quiet">Asking {{ yard.price_service }} …</p>
    <p v-if="offline" role="alert"><strong class="text-error">No connection.</strong></p>
    <FaultList :problems="problems" lead="Nothing is changed:" />
    <template v-if="asked">
      <p class="quiet">
        Prices of {{ asked.as_of
        }}<template v-if="asked.same">, {{ asked.same }} as they were</template>. Nothing is changed
        until you take it.
      </p>
      <RuledTable
        v-if="asked.changed.length"
        class="quotes"
        called="Prices that changed"
        :columns="COLUMNS"
        :rows="asked.changed"
        :key-of="(one) => one.line"
      >
        <template #take="{ row }">
          <v-checkbox-btn
            v-model="taken"
            density="compact"
            :value="row.line"
            :aria-label="`Take ${row.name}`"
          />
        </template>
        <template #name="{ row }">
          {{ row.name }}
          <span v-if="row.doubt" class="doubt">{{ row.doubt }}: look twice</span>
        </template>
      </RuledTable>
      <p v-for="one in asked.refused" :key="one.name" class="refused">
        <strong>{{ one.name }}</strong>: {{ one.reason }}
      </p>
      <p v-if="asked.unknown.length" class="quiet">
        Not sold there: {{ asked.unknown.join(', ') }}.
      </p>
    </template>

    <template #acts>
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
    </template>
  </PlainDialog>
</template>

<style scoped>
.quotes :deep(td) {
  vertical-align: middle;
  padding-top: 1px;
  padding-bottom: 1px;
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
