<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { FormDialog } from '../shared'

/** One number, asked for on a phone. */
const props = defineProps<{
  title: string
  label: string
  hint: string
  start: string
  decimals: boolean
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ given: [text: string] }>()
const text = ref('')
const fault = ref('')
const pattern = computed(() => (props.decimals ? /^(\d+([.]\d{1,2})?)?$/ : /^\d{1,4}$/))

watch(
  open,
  (now) => {
    if (!now) return
    text.value = props.start
    fault.value = ''
  },
  { immediate: true },
)

function save() {
  const given = text.value.trim()
  if (!pattern.value.test(given)) {
    fault.value = props.decimals ? 'write an amount such as 9.50' : 'write a whole number'
    return
  }
  emit('given', given)
  open.value = false
}
</script>

<template>
  <FormDialog
    v-model="open"
    :title="title"
    :width="400"
    :changed="text !== start"
    for-fingers
    @save="save"
  >
    <v-text-field
      v-model="text"
      class="gap-above"
      autofocus
      :label="label"
      :hint="hint"
      persistent-hint
      :inputmode="decimals ? 'decimal' : 'numeric'"
      :error-messages="fault"
      autocomplete="off"
    />
  </FormDialog>
</template>
