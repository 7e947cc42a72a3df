<script setup lang="ts">
import CredentialsForm from './CredentialsForm.vue'
import { api, outcomeOf, type Session } from '../api/client'
import { session, signedIn, signingInAgain } from './session'

async function enterDemo() {
  const outcome = await outcomeOf<Session>(api.POST('/api/session/demo'))
  if (outcome.kind === 'done') signedIn(outcome.data)
}
</script>

<template>
  <v-dialog v-model="signingInAgain" persistent max-width="420" aria-label="Your session has ended">
    <v-card title="Your session has ended">
      <v-card-text>
        <p class="gap-below">What you typed is still here. Sign in, and it is saved.</p>
        <v-btn v-if="session?.is_demo" color="primary" variant="flat" @click="enterDemo">
          Enter the demo workshop again
        </v-btn>
        <CredentialsForm v-else :making="false" :username="session?.username" />
      </v-card-text>
    </v-card>
  </v-dialog>
</template>
