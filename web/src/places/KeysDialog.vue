<script setup lang="ts">
import { AT_THE_DESK, keysOpen, PlainDialog, SHORTCUTS } from '../shared'

const GROUPS = [
  { called: 'Everywhere', keys: SHORTCUTS },
  { called: 'At the desk', keys: AT_THE_DESK },
]
</script>

<template>
  <PlainDialog v-model="keysOpen" title="Keys" is-long>
    <template v-for="group in GROUPS" :key="group.called">
      <h3>{{ group.called }}</h3>
      <dl>
        <template v-for="{ keys, does } in group.keys" :key="keys">
          <dt>
            <kbd>{{ keys }}</kbd>
          </dt>
          <dd>{{ does }}</dd>
        </template>
      </dl>
    </template>

    <template #acts><v-btn @click="keysOpen = false">Close</v-btn></template>
  </PlainDialog>
</template>

<style scoped>
h3 {
  margin: 6px 0 8px;
  font-size: var(--text-body);
}

dl {
  display: grid;
  grid-template-columns: 118px 1fr;
  gap: 8px 18px;
  margin: 0 0 14px;
}

dd {
  margin: 0;
}

kbd {
  font: inherit;
  font-weight: 650;
  border: 1px solid rgb(var(--v-theme-quiet));
  padding: 1px 7px;
  border-radius: var(--corner);
  white-space: nowrap;
}
</style>
