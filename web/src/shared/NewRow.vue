<script setup lang="ts">
import { computed } from 'vue'
import type { Problem } from '../api'

/** One thing that is asked for in a row that makes something new. */
export interface Asked {
  name: string
  label: string
  placeholder?: string
  isLength?: boolean
  choices?: readonly (string | { title: string; value: string })[]
  most?: number
  wide?: boolean
}

const props = defineProps<{
  asked: readonly Asked[]
  at: (name: string) => Problem['message'][]
  act: string
  busy?: boolean
}>()
defineEmits<{ made: [] }>()
const typed = defineModel<Record<string, string>>({ required: true })

const columns = computed(
  () => `${props.asked.map((one) => (one.wide ? '2fr' : 'minmax(0, 1fr)')).join(' ')} auto`,
)
</script>

<template>
  <form class="new" :style="{ '--columns': columns }" @submit.prevent="$emit('made')">
    <template v-for="one in asked" :key="one.name">
      <slot :name="one.name">
        <v-select
          v-if="one.choices"
          v-model="typed[one.name]"
          :label="one.label"
          :items="[...one.choices]"
          :error-messages="at(one.name)"
        />
        <v-text-field
          v-else
          v-model="typed[one.name]"
          :label="one.label"
          :placeholder="one.placeholder"
          :maxlength="one.most"
          :data-takes="one.isLength ? 'length' : undefined"
          :error-messages="at(one.name)"
        />
      </slot>
    </template>
    <v-btn type="submit" color="primary" variant="flat" :loading="busy">{{ act }}</v-btn>
  </form>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 12px;
  align-items: start;
}

@media (max-width: 760px) {
  .new {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
