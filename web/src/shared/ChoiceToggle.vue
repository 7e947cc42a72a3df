<script setup lang="ts" generic="Value extends string">
/** One of a few, all in view. */
defineProps<{ called: string; choices: readonly { value: Value; title: string }[] }>()
const chosen = defineModel<Value>({ required: true })
</script>

<template>
  <v-btn-toggle v-model="chosen" mandatory density="compact" :aria-label="called">
    <v-btn v-for="{ value, title } in choices" :key="value" size="small" :value="value">{{
      title
    }}</v-btn>
  </v-btn-toggle>
</template>
