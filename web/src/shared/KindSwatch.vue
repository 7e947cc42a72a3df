<script setup lang="ts">
/** The colour of a kind of wood, beside its name. */
defineProps<{ kind: string | undefined }>()
</script>

<template>
  <span
    class="swatch"
    :style="{ background: kind ? `rgb(var(--v-theme-${kind}))` : undefined }"
  ></span>
</template>

<style scoped>
.swatch {
  flex: none;
  display: inline-block;
  width: 13px;
  height: 13px;
  margin-right: 9px;
  border: 1px solid rgb(var(--v-theme-on-wood), 0.27);
  border-radius: var(--corner);
}
</style>
