<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, formOf, outcomeOf, type PricesReading, type Yard } from '../api'
import { PlainDialog } from '../shared'
import TableFile from './TableFile.vue'
import { useTableFile } from './useTableFile'

const props = defineProps<{ yard?: string }>()
const open = defineModel<boolean>({ required: true })
const queries = useQueryClient()
const held = useTableFile<PricesReading>(open, (picked, names) =>
  isWhole(picked)
    ? undefined
    : api.POST('/api/reading/prices-file', {
        body: { file: '', at: props.yard ?? '', columns: names },
        bodySerializer: (body) => formOf({ ...body, file: picked }),
      }),
)
const { file, reading, columns, busy, problems, settle } = held
const whole = computed(() => isWhole(file.value))

/** Whether a file is a whole yard, not a table of prices. */
function isWhole(picked: File | undefined): boolean {
  return Boolean(picked?.name.toLowerCase().endsWith('.json'))
}

async function take() {
  const picked = file.value
  if (!picked) return
  busy.value = true
  const body = {
    change_id: newId(),
    file: '',
    at: props.yard ?? '',
    columns: columns.value,
  }
  const bodySerializer = () => formOf({ ...body, file: picked })
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
  <PlainDialog v-model="open" title="Import prices" :width="680">
    <p class="quiet gap-below">
      A price list (CSV or XLSX with a header: stock, length, price …), or a whole yard as JSON.
      <template v-if="yard">Rows that name no yard are {{ yard }}’s.</template>
    </p>
    <TableFile label="Price list file" accept=".csv,.tsv,.txt,.xlsx,.json" :held="held" />
    <p v-if="whole && !problems.length">
      A yard file: a yard of the same name becomes what the file says. You can undo it there.
    </p>
    <section v-for="one in reading?.yards" :key="one.yard" class="yard">
      <h3 class="called">{{ one.yard }}{{ one.known ? '' : ', a new yard' }}</h3>
      <p v-if="one.new.length">
        <strong>{{ one.new.length }} new</strong> {{ some(one.new) }}
      </p>
      <p v-if="one.changed.length">
        <strong>{{ one.changed.length }} changed</strong> {{ some(one.changed) }}
      </p>
      <p v-if="one.same">
        <strong>{{ one.same }} the same</strong>
      </p>
      <p v-if="one.gone.length">
        <strong>{{ one.gone.length }} vanish</strong> {{ some(one.gone) }}
      </p>
    </section>

    <template #acts>
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
    </template>
  </PlainDialog>
</template>

<style scoped>
.yard {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding: 8px 0;
}

.yard h3 {
  margin: 0 0 4px;
  font-size: var(--text-body);
}

.yard p {
  margin: 2px 0;
}
</style>
