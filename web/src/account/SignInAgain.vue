<script setup lang="ts">
import { api, outcomeOf, type Session, session, signedIn, signingInAgain } from '../api'
import { PlainDialog } from '../shared'
import CredentialsForm from './CredentialsForm.vue'

async function enterDemo() {
  const outcome = await outcomeOf<Session>(api.POST('/api/session/demo'))
  if (outcome.kind === 'done') signedIn(outcome.data)
}
</script>

<template>
  <PlainDialog v-model="signingInAgain" title="Your session has ended" :width="420" persistent>
    <p class="gap-below">What you typed is still here. Sign in, and it is saved.</p>
    <v-btn v-if="session?.is_demo" color="primary" variant="flat" @click="enterDemo">
      Enter the demo workshop again
    </v-btn>
    <CredentialsForm v-else :making="false" :username="session?.username" />
  </PlainDialog>
</template>
