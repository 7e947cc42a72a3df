<script setup lang="ts">
/** The leaves of one side of a place: one of them lies on top. */
defineProps<{ leaves: readonly { name: string; label: string }[]; called: string }>()
const open = defineModel<string>({ required: true })
</script>

<template>
  <div class="leaves">
    <v-tabs v-model="open" class="tabs" height="37" slider-color="tape" :aria-label="called">
      <v-tab v-for="leaf in leaves" :key="leaf.name" :value="leaf.name">{{ leaf.label }}</v-tab>
    </v-tabs>
    <slot />
  </div>
</template>

<style scoped>
.leaves {
  display: flex;
  align-items: center;
  gap: 6px;
  flex: none;
  min-height: 38px;
  padding: 0 12px 0 6px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.tabs {
  flex: 1;
  min-width: 0;
}

.tabs :deep(.v-tab) {
  border: 0;
  min-width: 0;
  padding: 0 12px;
  font-size: var(--text-plain);
  color: rgb(var(--v-theme-quiet));
}

.tabs :deep(.v-tab--selected) {
  font-weight: 650;
  font-stretch: var(--wide);
  color: rgb(var(--v-theme-on-surface));
}

.tabs :deep(.v-tab__slider) {
  height: 4px;
}
</style>
