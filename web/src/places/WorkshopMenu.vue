<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useRouter } from 'vue-router'
import { session } from '../account/session'
import { api } from '../api/client'
import { panelOpen } from '../tape/tape'
import { keysOpen } from './shortcuts'
import type { Place } from './usePlaces'

/** The workshop's own places, and what belongs to whoever works in it. */
defineProps<{ places: Place[] }>()
const emit = defineEmits<{ left: [] }>()
const open = defineModel<boolean>({ required: true })
const router = useRouter()
const queries = useQueryClient()

async function signOut() {
  const { data } = await api.DELETE('/api/session')
  queries.clear()
  await (await import('../trip/stored')).forgetTrips()
  emit('left')
  if (data) session.value = data
  await router.push('/sign-in')
}
</script>

<template>
  <v-menu v-model="open">
    <template #activator="{ props: menu }"><slot :menu="menu" /></template>
    <v-list class="workshop" aria-label="Workshop">
      <v-list-item
        v-for="place in places"
        :key="place.to"
        :to="place.to"
        :title="place.label"
        :subtitle="place.word"
      />
      <v-divider />
      <v-list-item
        :title="panelOpen ? 'Put the digital tape away' : 'Digital tape'"
        @click="panelOpen = !panelOpen"
      />
      <v-list-item title="Keys" @click="keysOpen = true" />
      <v-list-item
        to="/account"
        title="Account"
        :subtitle="session?.is_demo ? 'the demo workshop' : session?.username"
      />
      <v-list-item title="Sign out" @click="signOut" />
    </v-list>
  </v-menu>
</template>
