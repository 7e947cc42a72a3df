<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useRouter } from 'vue-router'
import { api, session } from '../api'
import { lastId } from '../project'
import { forgetSeen, keysOpen } from '../shared'
import { panelOpen } from '../tape'
import type { Place } from './usePlaces'

/** The workshop's own places, and what belongs to whoever works in it. */
defineProps<{ places: Place[]; activator: HTMLElement }>()
const open = defineModel<boolean>({ required: true })
const router = useRouter()
const queries = useQueryClient()

async function signOut() {
  const { data } = await api.DELETE('/api/session')
  queries.clear()
  await forgetSeen()
  lastId.value = ''
  if (data) session.value = data
  await router.push('/sign-in')
}
</script>

<template>
  <v-menu v-model="open" :activator="activator" :open-on-click="false">
    <v-list class="workshop" role="menu" aria-label="Workshop">
      <v-list-item
        v-for="place in places"
        :key="place.to"
        role="menuitem"
        :to="place.to"
        :title="place.label"
        :subtitle="place.word"
      />
      <v-divider />
      <v-list-item
        role="menuitem"
        :title="panelOpen ? 'Put the digital tape away' : 'Digital tape'"
        @click="panelOpen = !panelOpen"
      />
      <v-list-item role="menuitem" title="Keys" @click="keysOpen = true" />
      <v-list-item
        role="menuitem"
        to="/account"
        title="Account"
        :subtitle="session?.is_demo ? 'the demo workshop' : session?.username"
      />
      <v-list-item role="menuitem" title="Sign out" @click="signOut" />
    </v-list>
  </v-menu>
</template>
