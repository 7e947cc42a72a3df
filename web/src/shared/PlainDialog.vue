<script setup lang="ts">
/** A dialog: what it is about, what it says, and at its foot what can be done. */
withDefaults(
  defineProps<{
    title: string
    width?: number
    /** It is not left by a press beside it. */
    persistent?: boolean
    /** What it says is longer than the screen and has nothing to press. */
    isLong?: boolean
  }>(),
  { width: 480 },
)
const open = defineModel<boolean>({ required: true })
</script>

<template>
  <v-dialog
    v-model="open"
    :max-width="width"
    :persistent="persistent"
    :aria-label="title"
    scrollable
  >
    <v-card :title="title">
      <v-card-text :tabindex="isLong ? 0 : undefined"><slot /></v-card-text>
      <v-card-actions v-if="$slots.acts"><slot name="acts" /></v-card-actions>
    </v-card>
  </v-dialog>
</template>
