<script setup lang="ts">
import { computed, ref } from 'vue'
import { type DayStep, type Project, useFaults } from '../api'
import { CautionList, LengthText } from '../shared'
import StepDrawing from './StepDrawing.vue'
import type { ProjectDays } from './useDays'

/** One step: what it is about, its times, its check, and what happened of it. */
const props = defineProps<{ step: DayStep; held: ProjectDays; project: Project }>()
const isDone = computed(() => ['done', 'dry'].includes(props.step.state))
const typing = ref(false)
const line = ref('')
const answer = ref('')
const earlier = ref('')
const faults = useFaults('steps')
const at = computed(() => (earlier.value ? new Date(earlier.value).toISOString() : ''))

/** Of a batch one more is made; with the last one it is done. */
function oneMore() {
  const made = props.step.made + 1
  if (made >= props.step.batch) return tell('done')
  return props.held.tell('made', props.step.key, { at: at.value, answer: `${made}` })
}

function tell(kind: string) {
  return props.held.tell(kind, props.step.key, { at: at.value })
}

async function check(said: string) {
  if (!said.trim()) return
  if (await props.held.tell('checked', props.step.key, { answer: said })) answer.value = ''
}

function write() {
  line.value = props.step.typed
  typing.value = true
}

async function save(text: string) {
  if (faults.settle(await props.held.say(props.step, text))) typing.value = false
}
</script>

<template>
  <section class="step" :aria-label="step.name">
    <p class="times">
      <strong>{{ step.when }}</strong>, {{ step.work
      }}<template v-if="step.wait"
        >, then waits {{ step.wait }} until <strong>{{ step.until }}</strong></template
      >
      <template v-if="step.wait_says"> ({{ step.wait_says }})</template>
      <template v-if="step.slack">; {{ step.slack }}</template>
      <template v-else-if="step.critical">; it cannot wait</template>
    </p>
    <p v-if="step.batch > 1 && !isDone">
      <strong>{{ step.made }} of {{ step.batch }}</strong> are done.
    </p>
    <p v-if="held.refused.value" class="text-error" role="alert">{{ held.refused.value }}</p>
    <div class="acts">
      <v-btn
        v-if="!isDone && step.state !== 'begun'"
        min-height="48"
        :loading="held.busy.value"
        @click="tell('begun')"
        >Begin</v-btn
      >
      <v-btn
        v-if="!isDone"
        min-height="48"
        color="done"
        variant="flat"
        :loading="held.busy.value"
        @click="tell('done')"
        >Done</v-btn
      >
      <v-btn
        v-if="!isDone && step.batch > 1"
        min-height="48"
        variant="text"
        :loading="held.busy.value"
        @click="oneMore"
        >One more of {{ step.batch }}</v-btn
      >
      <v-btn v-if="step.state === 'dry'" min-height="48" @click="tell('over')"
        >Its wait is over</v-btn
      >
      <v-btn v-if="step.last" min-height="48" variant="text" @click="held.undo(step)"
        >Take back</v-btn
      >
      <label v-if="!isDone" class="earlier"
        >at another time <input v-model="earlier" type="datetime-local"
      /></label>
    </div>
    <p v-if="step.needs.length">Needs {{ step.needs.join(', ') }}.</p>
    <table v-if="step.pieces.length" class="pieces">
      <tbody>
        <tr v-for="one in step.pieces" :key="one.label">
          <th scope="row" class="figure">{{ one.label }}</th>
          <td>{{ one.name }}</td>
          <td class="size">
            <template v-if="one.thickness && one.width"
              ><LengthText :length="one.thickness" /> × <LengthText :length="one.width" /> ×
            </template>
            <LengthText :length="one.length" />
          </td>
        </tr>
      </tbody>
    </table>
    <ul v-if="step.joints.length || step.notes.length">
      <li v-for="one in [...step.joints, ...step.notes]" :key="one">{{ one }}</li>
    </ul>
    <StepDrawing
      v-for="one in step.drawn"
      :key="one.id"
      :project="project"
      :shape="one.id"
      :called="one.called"
    />
    <div v-if="step.check" class="check">
      <p>
        Check: <strong>{{ step.check.told }}</strong>
        <template v-if="step.check.answer"> · answered {{ step.check.answer }}</template>
      </p>
      <p v-if="step.check.says" class="text-error" role="alert">{{ step.check.says }}</p>
      <form class="answer" @submit.prevent="check(answer)">
        <template v-if="step.check.is_figure">
          <v-text-field
            v-model="answer"
            :label="step.check.asks"
            data-takes="length"
            autocomplete="off"
          />
          <v-btn type="submit" min-height="48">Note it</v-btn>
        </template>
        <template v-else>
          <v-btn min-height="48" @click="check('yes')">Yes</v-btn>
          <v-btn min-height="48" @click="check('no')">No</v-btn>
        </template>
      </form>
    </div>
    <form v-if="typing" class="line" @submit.prevent="save(line)">
      <v-textarea
        v-model="line"
        label="This step as a line"
        rows="2"
        auto-grow
        :spellcheck="false"
        :error-messages="faults.at('steps')"
        hint="20 min, then wait 10 h, needs 4 clamps, check diagonals to 1/16, after …, only after …, left out"
        persistent-hint
        @keydown.enter.prevent="save(line)"
      />
      <v-btn type="submit" min-height="48">Save</v-btn>
      <v-btn v-if="step.line" min-height="48" variant="text" @click="save('')">{{
        step.is_own ? 'Take it away' : 'As it was made'
      }}</v-btn>
      <v-btn min-height="48" variant="text" @click="typing = false">Cancel</v-btn>
    </form>
    <v-btn v-else variant="text" min-height="48" @click="write">Change this step</v-btn>
    <CautionList :cautions="step.cautions" />
  </section>
</template>

<style scoped>
.step {
  padding: 10px 14px 14px;
  font-size: var(--text-plain);
  background: rgb(var(--v-theme-surface));
}

.step p {
  margin: 0 0 8px;
}

ul {
  margin: 0 0 8px;
  padding-left: 18px;
}

.check,
.line {
  padding: 8px 0;
  border-top: 1px solid rgb(var(--v-theme-rule));
}

.answer,
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

.acts {
  padding: 8px 0;
  border-top: 1px solid rgb(var(--v-theme-rule));
}

.earlier {
  display: grid;
  font-size: var(--text-fine);
  color: rgb(var(--v-theme-quiet));
}

.earlier input {
  min-height: 30px;
  font: inherit;
  font-size: var(--text-small);
  color: inherit;
  color-scheme: light dark;
  background: transparent;
  border: 0;
  border-bottom: 1px solid rgb(var(--v-theme-quiet));
}

.pieces {
  width: 100%;
  margin-bottom: 8px;
  font-size: var(--text-small);
  border-collapse: collapse;
}

.pieces th,
.pieces td {
  padding: 3px 8px 3px 0;
  text-align: left;
  vertical-align: baseline;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.pieces .size {
  white-space: nowrap;
}
</style>
