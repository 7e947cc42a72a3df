<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Effect, Outcome } from '../api'
import PlainDialog from './PlainDialog.vue'
import RuledTable from './RuledTable.vue'
import SectionText from './SectionText.vue'

const COLUMNS = [
  { name: 'project', title: 'project' },
  { name: 'part', title: 'part', look: 'called' },
  { name: 'pieces', title: 'pieces', right: true, look: 'figure' },
  { name: 'before', title: 'size now' },
  { name: 'after', title: 'then' },
]
const effects = ref<Effect[]>([])
const open = ref(false)
const title = computed(() =>
  effects.value.length === 1 ? 'One part changes' : `${effects.value.length} parts change`,
)
let answer: (apply: boolean) => void = () => undefined

/** Lists what a corrected size would change and asks; nothing to list needs no asking. */
async function apply<T>(
  asked: Promise<Outcome<Effect[]>>,
  save: () => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  const outcome = await asked
  if (outcome.kind === 'done' && outcome.data.length) {
    effects.value = outcome.data
    open.value = true
    const applied = await new Promise<boolean>((resolve) => (answer = resolve))
    open.value = false
    if (!applied)
      return {
        kind: 'refused',
        detail: 'not applied: Enter asks again, Escape takes the old size',
        problems: [],
      }
  }
  return save()
}

defineExpose({ apply })
</script>

<template>
  <PlainDialog :model-value="open" :title="title" :width="620" @update:model-value="answer(false)">
    <RuledTable
      called="What changes"
      :columns="COLUMNS"
      :rows="effects"
      :key-of="(_, index) => index"
    >
      <template #part="{ row }">{{ row.mark }} {{ row.called }}</template>
      <template #before="{ row }">
        <SectionText v-if="row.before" :section="row.before" />
      </template>
      <template #after="{ row }">
        <SectionText v-if="row.after" :section="row.after" />
        <span v-if="row.why" class="why">{{ row.why }}</span>
      </template>
    </RuledTable>

    <template #acts>
      <v-btn @click="answer(false)">Leave it</v-btn>
      <v-btn color="primary" variant="flat" @click="answer(true)">Apply the size</v-btn>
    </template>
  </PlainDialog>
</template>

<style scoped>
.why {
  display: block;
  font-size: var(--text-small);
  color: rgb(var(--v-theme-error));
}
</style>
