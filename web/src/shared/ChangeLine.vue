<script setup lang="ts">
import type { Hold } from '../api'

/** What was changed last, or why it is not saved yet. */
defineProps<{ held: Pick<Hold, 'offline' | 'waiting'>; change: string | null }>()
</script>

<template>
  <p class="change" role="status">
    <template v-if="held.offline.value">
      <strong class="text-error">No connection.</strong> What you typed is kept and sent when it is
      back.
    </template>
    <template v-else-if="held.waiting.value">Saving …</template>
    <template v-else
      ><slot>{{ change }}</slot></template
    >
  </p>
</template>

<style scoped>
.change {
  min-height: 1.4em;
  margin: 8px 0;
  font-size: var(--text-small);
}
</style>
