<script setup lang="ts">
import { SHORTCUTS } from './shortcuts'

const open = defineModel<boolean>({ required: true })
</script>

<template>
  <v-dialog v-model="open" max-width="440">
    <v-card title="Keys at the desk">
      <v-card-text>
        <dl>
          <template v-for="{ keys, does } in SHORTCUTS" :key="keys">
            <dt>
              <kbd>{{ keys }}</kbd>
            </dt>
            <dd>{{ does }}</dd>
          </template>
        </dl>
      </v-card-text>
      <v-card-actions><v-btn @click="open = false">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 18px;
  margin: 0;
}

dd {
  margin: 0;
}

kbd {
  font: inherit;
  font-weight: 650;
  border: 1px solid rgb(var(--v-theme-quiet));
  padding: 1px 7px;
  border-radius: 2px;
  white-space: nowrap;
}
</style>
