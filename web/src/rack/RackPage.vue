<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useSessionStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useFaults } from '../api'
import { ChangeLine, counted, HeldPage, NewRow, PageTurner, useSearchedPage } from '../shared'
import BoardTable from './BoardTable.vue'
import { useRack } from './useRack'

const route = useRoute()
const { search, found, page } = useSearchedPage()
const alone = computed(() => String(route.params.board ?? '') || undefined)
const held = useRack(found, page, alone)
const empty = { stock: '', length: '', place: '' }
const fresh = useSessionStorage<Record<string, string>>('grain-tally:rack-board', { ...empty })
const faults = useFaults('stock')
const ASKED = [
  { name: 'stock', label: 'Stock', placeholder: '2x4 treated', wide: true },
  { name: 'length', label: 'Length', placeholder: '70 1/2', isLength: true },
  { name: 'place', label: 'Place', placeholder: 'left bay', wide: true },
]

async function add() {
  const outcome = await held.writeBoard(newId(), { ...fresh.value })
  if (faults.settle(outcome)) fresh.value = { ...empty, place: fresh.value.place ?? '' }
}
</script>

<template>
  <HeldPage v-slot="{ thing: rack }" :held="held" called="The rack" fetching="Going to the rack">
    <div class="page">
      <div class="top">
        <div>
          <h1>Rack</h1>
          <p class="quiet lead">
            {{ counted(rack.total, 'board') }} on hand. A project uses them where that saves buying,
            or first of all; twisted and crooked ones are left alone, flaws are cut around.
          </p>
        </div>
        <v-btn href="/api/rack/labels.pdf">Print labels</v-btn>
      </div>
      <p v-if="alone" class="quiet">
        One board of it. <RouterLink to="/rack">The whole rack</RouterLink>
      </p>
      <NewRow v-else v-model="fresh" :asked="ASKED" :at="faults.at" act="Lay it on" @made="add" />
      <ChangeLine :held="held" :change="rack.change" />
      <v-text-field
        v-if="rack.total && !alone"
        v-model="search"
        label="Find by stock, place, note or number"
        type="search"
        clearable
        class="find"
      />
      <BoardTable v-if="rack.boards.length" :rack="rack" :held="held" :alone="alone" />
      <p v-else class="quiet">
        {{
          rack.total
            ? 'No board like that.'
            : 'Nothing on the rack yet: offcuts, salvaged boards, leftovers.'
        }}
      </p>
      <PageTurner v-model="page" :found="rack.found" :size="rack.page_size" what="boards" />
    </div>
  </HeldPage>
</template>
