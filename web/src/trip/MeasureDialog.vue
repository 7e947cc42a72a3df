<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { TripEvent, TripLine } from '../api'
import { FormDialog } from '../shared'

/** What a board at the yard measures: kept, shortened or rejected. */
const props = defineProps<{ line: TripLine | undefined; refused?: TripEvent; unit: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ measured: [kind: 'kept' | 'rejected', sizes: Sizes] }>()

const names = ['length', 'width', 'thickness', 'crook', 'bow', 'cup'] as const
type Sizes = Record<(typeof names)[number] | 'twist', string>

const typed = ref<Sizes>(empty())
const twisted = ref(false)
const isChanged = computed(
  () => twisted.value || Object.values(typed.value).some((text) => text.trim()),
)

function empty(): Sizes {
  return { length: '', width: '', thickness: '', crook: '', bow: '', cup: '', twist: '' }
}

watch(
  open,
  (now) => {
    if (!now) return
    const again = props.refused?.line === props.line?.key ? props.refused : undefined
    typed.value = empty()
    for (const name of names) typed.value[name] = again?.[name] ?? ''
    twisted.value = again?.twist === 'yes'
  },
  { immediate: true },
)

function tell(kind: 'kept' | 'rejected') {
  emit('measured', kind, { ...typed.value, twist: twisted.value ? 'yes' : '' })
  open.value = false
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="What this one measures"
    act="Keep it"
    :width="460"
    :changed="isChanged"
    for-fingers
    @save="tell('kept')"
  >
    <p>{{ line?.called }}</p>
    <p class="quiet">
      Leave empty what is as named. Where only a stretch is good, write its length: the board counts
      as that.
    </p>
    <div class="sizes">
      <v-text-field
        v-for="name in names"
        :key="name"
        v-model="typed[name]"
        :label="name"
        :suffix="unit"
        data-takes="length"
        autocomplete="off"
      />
      <v-checkbox v-model="twisted" label="rocks on its corners: twisted" class="wide" />
    </div>
    <template #more>
      <v-btn min-height="48" color="error" @click="tell('rejected')">Reject it</v-btn>
    </template>
  </FormDialog>
</template>

<style scoped>
.sizes {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  padding-top: 8px;
}

.wide {
  grid-column: 1 / -1;
}
</style>
