<script setup lang="ts">
import { ref, watch } from 'vue'
import type { TripEvent, TripLine } from '../api/client'

/** What a board at the yard measures: kept, shortened or rejected. */
const props = defineProps<{ line: TripLine | undefined; refused?: TripEvent; unit: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ measured: [kind: 'kept' | 'rejected', sizes: Sizes] }>()

const names = ['length', 'width', 'thickness', 'crook', 'bow', 'cup'] as const
type Sizes = Record<(typeof names)[number] | 'twist', string>

const typed = ref<Sizes>(empty())
const twisted = ref(false)

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
  <v-dialog v-model="open" max-width="460" scrollable>
    <v-card title="What this one measures">
      <v-card-text class="pt-2">
        <p>{{ line?.called }}</p>
        <p class="quiet">
          Leave empty what is as named. Where only a stretch is good, write its length: the board
          counts as that.
        </p>
        <form id="measured" class="sizes" @submit.prevent="tell('kept')">
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
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn min-height="48" @click="open = false">Cancel</v-btn>
        <v-btn min-height="48" color="error" @click="tell('rejected')">Reject it</v-btn>
        <v-btn
          class="px-4"
          min-height="48"
          type="submit"
          form="measured"
          color="primary"
          variant="flat"
          >Keep it</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
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
