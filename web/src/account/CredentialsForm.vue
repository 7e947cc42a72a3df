<script setup lang="ts">
import { ref } from 'vue'
import { api, outcomeOf, type Problem, type Session } from '../api/client'
import { signedIn } from './session'

const props = defineProps<{ making: boolean; username?: string }>()
const emit = defineEmits<{ done: [] }>()
const username = ref(props.username ?? '')
const password = ref('')
const problems = ref<Problem[]>([])
const busy = ref(false)

function faults(place: string): string[] {
  return problems.value.filter((p) => p.place === place).map((p) => p.message)
}

async function send() {
  busy.value = true
  problems.value = []
  const body = { username: username.value, password: password.value }
  const outcome = await outcomeOf<Session>(
    props.making ? api.POST('/api/account', { body }) : api.POST('/api/session', { body }),
  )
  busy.value = false
  if (outcome.kind === 'done') {
    signedIn(outcome.data)
    emit('done')
  } else if (outcome.kind === 'refused') {
    problems.value = outcome.problems.length
      ? outcome.problems
      : [{ place: 'password', message: outcome.detail }]
  } else {
    problems.value = [{ place: 'password', message: 'the server does not answer: try again' }]
  }
}
</script>

<template>
  <form @submit.prevent="send">
    <v-text-field
      v-model="username"
      label="Name"
      autocomplete="username"
      :error-messages="faults('username')"
      class="mb-3"
    />
    <v-text-field
      v-model="password"
      label="Password"
      type="password"
      :autocomplete="making ? 'new-password' : 'current-password'"
      :error-messages="[...faults('password'), ...faults('')]"
      :hint="making ? 'at least 8 characters, not a common one' : undefined"
      :persistent-hint="making"
      class="mb-4"
    />
    <v-btn type="submit" color="primary" variant="flat" :loading="busy">
      {{ making ? 'Make the account' : 'Sign in' }}
    </v-btn>
  </form>
</template>
