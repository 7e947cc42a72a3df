<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { computed, ref } from 'vue'
import { useFaults } from '../api'
import { ChangeLine, HeldPage } from '../shared'
import ToolTable from './ToolTable.vue'
import { useTools } from './useTools'

/** The tools of the workshop: what each can do decides what plans ask for, and the way in the shop. */
const held = useTools()
const kind = ref('band saw')
const faults = useFaults('kind')
const kinds = computed(() => held.thing.value?.kinds ?? [])

async function add() {
  faults.settle(await held.write(newId(), { kind: kind.value, limits: {} }))
}
</script>

<template>
  <HeldPage v-slot="{ thing: box }" :held="held" called="The tools" fetching="Fetching tools">
    <div class="page">
      <h1>Tools</h1>
      <p class="quiet lead">
        What you own, and what each can do. No plan asks for more; in the shop the way follows from
        it: turned over, on a sled, along a guide, with a wedge. Leave empty what has no limit. Bare
        numbers are inches.
      </p>
      <ul class="can" aria-label="What plans may ask for">
        <li v-for="one in box.can" :key="one">{{ one }}</li>
      </ul>
      <ChangeLine :held="held" :change="box.change" />

      <ToolTable v-if="box.tools.length" :box="box" :held="held" />
      <p v-if="!box.tools.length" class="quiet">
        No tools: plans have no limits, and the shop cannot say how a cut is made.
      </p>

      <form class="add" @submit.prevent="add">
        <v-select
          v-model="kind"
          label="One more"
          :items="kinds.map((one) => one.kind)"
          :error-messages="faults.at('kind')"
        />
        <v-btn type="submit" color="primary" variant="flat">Add it</v-btn>
      </form>
      <p class="quiet small">
        <a href="/api/tools/file" download="tools.json">These tools as a file</a> for the terminal.
      </p>
    </div>
  </HeldPage>
</template>

<style scoped>
.can {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  margin: 12px 0 0;
  padding: 8px 0;
  list-style: none;
  border-top: var(--heavy) solid rgb(var(--v-theme-on-background));
  font-stretch: var(--condensed);
  font-weight: 600;
}

.add {
  display: grid;
  grid-template-columns: minmax(0, 260px) auto;
  gap: 14px;
  align-items: center;
  justify-content: start;
  margin: 22px 0 18px;
}
</style>
