<script setup lang="ts">
import { ref } from 'vue'
import { api, outcomeOf, type Session, signedIn, useFaults } from '../api'

const props = defineProps<{ making: boolean; username?: string }>()
const emit = defineEmits<{ done: [] }>()
const username = ref(props.username ?? '')
const password = ref('')
const faults = useFaults('password')
const busy = ref(false)

async function send() {
  busy.value = true
  const body = { username: username.value, password: password.value }
  const outcome = await outcomeOf<Session>(
    props.making ? api.POST('/api/account', { body }) : api.POST('/api/session', { body }),
  )
  busy.value = false
  if (faults.settle(outcome)) {
    signedIn(outcome.data)
    emit('done')
  }
}
</script>

<template>
  <form @submit.prevent="send">
    <v-text-field
      v-model="username"
      label="Name"
      autocomplete="username"
      :error-messages="faults.at('username')"
      class="gap-below"
    />
    <v-text-field
      v-model="password"
      label="Password"
      type="password"
      :autocomplete="making ? 'new-password' : 'current-password'"
      :error-messages="faults.at('password')"
      :hint="making ? 'at least 8 characters, not a common one' : undefined"
      :persistent-hint="making"
      class="gap-below"
    />
    <v-btn type="submit" color="primary" variant="flat" :loading="busy">
      {{ making ? 'Make the account' : 'Sign in' }}
    </v-btn>
  </form>
</template>
