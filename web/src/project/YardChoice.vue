<script setup lang="ts">
import { computed, ref } from 'vue'
import { ASKED_OF_A_YARD, useNewYard } from './useNewYard'
import { useYards } from './useYards'

/** Chooses one of the yards, none, or one that is made here and now. */
const NEW = 'new'
const props = defineProps<{ label: string; none: string }>()
const yard = defineModel<string>({ required: true })
const { yards } = useYards()
const { typed, faults, make } = useNewYard()
const making = ref(false)
const items = computed(() => [
  { title: props.none, value: '' },
  ...(yards.value ?? []).map(({ name, id }) => ({ title: name, value: id })),
  { title: 'A new yard …', value: NEW },
])
const chosen = computed({
  get: () => (making.value ? NEW : yard.value),
  set: (value: string) => {
    making.value = value === NEW
    if (!making.value) yard.value = value
  },
})

let underWay: Promise<boolean> | undefined

async function create(): Promise<boolean> {
  const made = await make()
  if (!made) return false
  yard.value = made.id
  making.value = false
  return true
}

/** Makes the yard that is asked for, once: false where it could not be made. To be awaited before
 * the form that it stands in is sent. */
function settle(): Promise<boolean> {
  if (!making.value) return Promise.resolve(true)
  underWay ??= create().finally(() => (underWay = undefined))
  return underWay
}
defineExpose({ settle, making })
</script>

<template>
  <div>
    <v-select v-model="chosen" :label="label" :items="items" />
    <div v-if="making" class="making" role="group" aria-label="A new yard">
      <v-text-field
        v-for="one in ASKED_OF_A_YARD.slice(0, 2)"
        :key="one.name"
        v-model="typed[one.name]"
        :label="`${one.label} of the yard`"
        :maxlength="'most' in one ? one.most : undefined"
        :error-messages="faults.at(one.name)"
        @keydown.enter.prevent="settle"
      />
      <v-btn @click="settle">Make it</v-btn>
    </div>
  </div>
</template>

<style scoped>
.making {
  display: grid;
  gap: 10px;
  padding: 10px 0 4px 12px;
  border-left: 4px solid rgb(var(--v-theme-tape));
}
</style>
