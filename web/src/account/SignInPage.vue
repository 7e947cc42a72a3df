<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, outcomeOf, type Session, session, signedIn } from '../api'
import CredentialsForm from './CredentialsForm.vue'

const route = useRoute()
const router = useRouter()
const making = ref(false)
const fault = ref('')

function goOn() {
  const next = String(route.query.next ?? '/projects')
  return router.push(next.startsWith('/') && !next.startsWith('//') ? next : '/projects')
}

async function enterDemo() {
  const outcome = await outcomeOf<Session>(api.POST('/api/session/demo'))
  if (outcome.kind === 'done') {
    signedIn(outcome.data)
    await goOn()
  } else fault.value = 'the demo workshop does not answer: try again'
}
</script>

<template>
  <div class="page entry">
    <section>
      <h1>Know the cut before you buy the board</h1>
      <p class="quiet lead">
        Type what you want to build in nominal sizes. Grain Tally works with the size each board
        really has, counts every saw kerf, and proves that no cheaper purchase exists.
      </p>
      <svg viewBox="0 0 460 96" class="board" role="img" aria-label="A board with its saw lines">
        <rect x="0" y="20" width="8" height="50" class="waste" />
        <rect x="10" y="20" width="196" height="50" class="part" />
        <rect x="209" y="20" width="152" height="50" class="part" />
        <rect x="364" y="20" width="94" height="50" class="keep" />
        <path d="M207.5 8v74M362.5 8v74" class="saw" />
        <text x="196" y="52" text-anchor="end">
          <tspan>44</tspan>
          <tspan class="fraction">1⁄2</tspan>
          <tspan>″</tspan>
        </text>
        <text x="351" y="52" text-anchor="end">
          <tspan>34</tspan>
          <tspan class="fraction">7⁄16</tspan>
          <tspan>″</tspan>
        </text>
        <text x="411" y="50" text-anchor="middle" class="small">keep 21″</text>
      </svg>
      <template v-if="session?.demo_available">
        <v-btn color="primary" variant="flat" size="large" class="gap-above" @click="enterDemo">
          Enter the demo workshop
        </v-btn>
        <p class="quiet">Quarry Lane, a made-up allotment society: nothing to fill in.</p>
        <p v-if="fault" role="alert" class="text-error">{{ fault }}</p>
      </template>
    </section>
    <section class="form">
      <h2>{{ making ? 'Make an account' : 'Sign in' }}</h2>
      <CredentialsForm :key="String(making)" :making="making" @done="goOn" />
      <v-btn variant="text" class="other-way gap-above" color="primary" @click="making = !making">
        {{ making ? 'I have an account' : 'Make an account instead' }}
      </v-btn>
    </section>
  </div>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 56px;
  padding-top: 64px;
}

.entry h1 {
  font-size: var(--text-huge);
  line-height: 1.15;
  max-width: 15em;
}

.entry .quiet {
  margin-top: 8px;
}

.lead {
  max-width: 34em;
  font-size: var(--text-large);
}

.form {
  border-left: 3px solid rgb(var(--v-theme-on-background));
  padding-left: 28px;
}

.form h2 {
  margin-top: 0;
}

.other-way {
  padding-inline: 0;
}

.board {
  width: 100%;
  max-width: 460px;
  margin-top: 20px;
}

.part {
  fill: rgb(var(--v-theme-durable));
  stroke: rgb(var(--v-theme-on-wood), 0.4);
}

.waste {
  fill: rgb(var(--v-theme-saw));
  opacity: 0.4;
}

.keep {
  fill: none;
  stroke: rgb(var(--v-theme-quiet));
  stroke-dasharray: 5 4;
}

.saw {
  stroke: rgb(var(--v-theme-saw));
  stroke-width: 3;
}

text {
  font-weight: 650;
  font-size: var(--drawn-large);
  font-stretch: 84%;
  fill: rgb(var(--v-theme-on-wood));
}

.small {
  font-size: var(--drawn);
  fill: rgb(var(--v-theme-on-background));
}

@media (max-width: 760px) {
  .entry {
    grid-template-columns: minmax(0, 1fr);
    padding-top: 28px;
    gap: 32px;
  }

  .form {
    border-left: 0;
    border-top: 3px solid rgb(var(--v-theme-on-background));
    padding: 20px 0 0;
  }
}
</style>
