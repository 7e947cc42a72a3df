<script setup lang="ts">
/** Names that would complete what is typed in a formula; Tab takes the one that is lit. */
defineProps<{ id: string; names: readonly string[]; at: number }>()
defineEmits<{ choose: [name: string] }>()
</script>

<template>
  <ul :id="id" role="listbox" aria-label="Names" class="names">
    <li
      v-for="(name, index) in names"
      :id="`${id}-${index}`"
      :key="name"
      role="option"
      :aria-selected="index === at"
      :class="{ lit: index === at }"
      @pointerdown.prevent="$emit('choose', name)"
    >
      {{ name }}<kbd v-if="index === at" aria-hidden="true">Tab</kbd>
    </li>
  </ul>
</template>

<style scoped>
.names {
  position: absolute;
  z-index: 6;
  top: 100%;
  left: 0;
  min-width: 150px;
  margin: 2px 0 0;
  padding: 3px 0;
  list-style: none;
  text-align: left;
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgb(var(--v-theme-quiet));
  border-radius: var(--corner);
  font-size: var(--text-small);
}

li {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  padding: 4px 10px;
  cursor: pointer;
  white-space: nowrap;
}

.lit {
  background: rgb(var(--v-theme-selected));
}

kbd {
  font: inherit;
  font-size: var(--text-fine);
  color: rgb(var(--v-theme-quiet));
}
</style>
