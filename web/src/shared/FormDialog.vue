<script setup lang="ts">
import { useId } from 'vue'

/** A form in a dialog that is saved or cancelled. */
defineProps<{
  title: string
  width: number
  busy?: boolean
  forFingers?: boolean
  dismiss?: string
}>()
defineEmits<{ save: [] }>()
const open = defineModel<boolean>({ required: true })
const form = useId()
</script>

<template>
  <v-dialog v-model="open" :max-width="width" scrollable>
    <v-card :title="title">
      <v-card-text class="pt-3">
        <form :id="form" @submit.prevent="$emit('save')"><slot /></form>
      </v-card-text>
      <v-card-actions>
        <v-btn :min-height="forFingers ? 48 : undefined" @click="open = false">{{
          dismiss ?? 'Cancel'
        }}</v-btn>
        <v-btn
          type="submit"
          :form="form"
          color="primary"
          variant="flat"
          :min-height="forFingers ? 48 : undefined"
          :loading="busy"
          >Save</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
