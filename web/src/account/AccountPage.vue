<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, outcomeOf, type Session, session, useFaults } from '../api'

const router = useRouter()
const passwords = ref({ old: '', new: '' })
const confirmation = ref('')
const faults = useFaults('')
const said = ref('')

async function ask(request: Parameters<typeof outcomeOf<Session>>[0]): Promise<boolean> {
  said.value = ''
  const outcome = await outcomeOf<Session>(request)
  if (faults.settle(outcome)) session.value = outcome.data
  return outcome.kind === 'done'
}

async function changePassword() {
  if (await ask(api.POST('/api/account/password', { body: passwords.value }))) {
    passwords.value = { old: '', new: '' }
    said.value = 'The password is changed.'
  }
}

async function deleteAccount() {
  if (await ask(api.POST('/api/account/delete', { body: { password: confirmation.value } })))
    await router.push('/sign-in')
}
</script>

<template>
  <div class="page">
    <h1>{{ session?.is_demo ? 'The demo workshop' : session?.username }}</h1>
    <p v-if="session?.is_demo" class="quiet">
      Everybody who comes here shares it. Make an account of your own to keep your work apart.
    </p>
    <p v-for="fault in faults.at('')" :key="fault" role="alert" class="text-error">{{ fault }}</p>
    <p v-if="said" role="status">{{ said }}</p>

    <h2>Take everything with you</h2>
    <p class="quiet">All projects and yards in one file, in the open formats.</p>
    <v-btn href="/api/account/export.json" class="gap-above">Export the account</v-btn>

    <template v-if="!session?.is_demo">
      <h2>Password</h2>
      <form class="narrow" @submit.prevent="changePassword">
        <v-text-field
          v-model="passwords.old"
          label="Password now"
          type="password"
          autocomplete="current-password"
          :error-messages="faults.at('old')"
          class="gap-below"
        />
        <v-text-field
          v-model="passwords.new"
          label="New password"
          type="password"
          autocomplete="new-password"
          :error-messages="faults.at('new')"
          class="gap-below"
        />
        <v-btn type="submit">Change the password</v-btn>
      </form>

      <h2>Delete the account</h2>
      <p class="quiet">Every project, yard and price in it is deleted at once, for good.</p>
      <form class="narrow" @submit.prevent="deleteAccount">
        <v-text-field
          v-model="confirmation"
          label="Your password, to confirm"
          type="password"
          autocomplete="current-password"
          :error-messages="faults.at('password')"
          class="gap-below"
        />
        <v-btn type="submit" color="error">Delete everything</v-btn>
      </form>
    </template>
  </div>
</template>

<style scoped>
.narrow {
  max-width: 360px;
  margin-top: 8px;
}
</style>
