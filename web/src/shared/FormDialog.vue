<script setup lang="ts">
import { ref, useId, watch } from 'vue'
import PlainDialog from './PlainDialog.vue'

/** A form in a dialog that is saved or cancelled. Closing one in which something was typed asks what
 * is to become of it. */
const props = defineProps<{
  title: string
  width: number
  busy?: boolean
  forFingers?: boolean
  changed?: boolean
  act?: string
}>()
defineEmits<{ save: [] }>()
const open = defineModel<boolean>({ required: true })
const form = useId()
const asking = ref(false)

watch(open, () => (asking.value = false))

function close() {
  if (props.changed) asking.value = !asking.value
  else open.value = false
}
</script>

<template>
  <PlainDialog :model-value="open" :title="title" :width="width" @update:model-value="close">
    <form :id="form" class="gap-above" @submit.prevent="$emit('save')"><slot /></form>
    <template #acts>
      <template v-if="asking">
        <span class="ask" role="alert">What you typed is not saved.</span>
        <v-btn :min-height="forFingers ? 48 : undefined" @click="open = false">Let it go</v-btn>
        <v-btn :min-height="forFingers ? 48 : undefined" @click="asking = false"
          >Go on typing</v-btn
        >
      </template>
      <v-btn v-else :min-height="forFingers ? 48 : undefined" @click="close">Cancel</v-btn>
      <slot name="more" />
      <v-btn
        type="submit"
        :form="form"
        color="primary"
        variant="flat"
        :min-height="forFingers ? 48 : undefined"
        :loading="busy"
        >{{ act ?? 'Save' }}</v-btn
      >
    </template>
  </PlainDialog>
</template>

<style scoped>
.ask {
  flex: 1;
  color: rgb(var(--v-theme-error));
  font-weight: 560;
}
</style>
