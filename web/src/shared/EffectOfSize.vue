<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Effect, Outcome } from '../api/client'
import SectionText from './SectionText.vue'

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
  <v-dialog
    :model-value="open"
    max-width="620"
    scrollable
    :aria-label="title"
    @update:model-value="answer(false)"
  >
    <v-card :title="title">
      <v-card-text>
        <table class="ruled">
          <thead>
            <tr>
              <th>project</th>
              <th>part</th>
              <th class="to-right">pieces</th>
              <th>size now</th>
              <th>then</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(one, index) in effects" :key="index">
              <td>{{ one.project }}</td>
              <td class="called">{{ one.mark }} {{ one.called }}</td>
              <td class="to-right figure">{{ one.pieces }}</td>
              <td><SectionText v-if="one.before" :section="one.before" /></td>
              <td>
                <SectionText v-if="one.after" :section="one.after" />
                <span v-if="one.why" class="why">{{ one.why }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="answer(false)">Leave it</v-btn>
        <v-btn color="primary" variant="flat" @click="answer(true)">Apply the size</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.why {
  display: block;
  font-size: var(--text-small);
  color: rgb(var(--v-theme-error));
}
</style>
