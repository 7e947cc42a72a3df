<script setup lang="ts" generic="Value extends string">
/** One of many, in the place where it is shown. */
defineProps<{ called: string; choices: readonly { value: Value; title: string }[] }>()
const chosen = defineModel<Value>({ required: true })
</script>

<template>
  <v-select
    v-model="chosen"
    :items="[...choices]"
    :aria-label="called"
    density="compact"
    hide-details
    class="choice"
  />
</template>

<style scoped>
.choice {
  min-width: 96px;
  max-width: 260px;
}

.choice :deep(.v-field__input) {
  min-height: 28px;
  padding-top: 2px;
  padding-bottom: 2px;
}
</style>
