<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, defineAsyncComponent, ref } from 'vue'
import type { Days, Project } from '../api'
import { type ProjectOnDesk, SettingsDialog } from '../project'
import { CautionList, ChangeLine, counted, NoticeLine } from '../shared'
import DaysDrawing from './DaysDrawing.vue'
import DaysFoot from './DaysFoot.vue'
import DaysList from './DaysList.vue'
import OnPaper from './OnPaper.vue'
import StepCard from './StepCard.vue'
import { useDays } from './useDays'
import WouldDo from './WouldDo.vue'

const DaysLines = defineAsyncComponent(() => import('./DaysLines.vue'))

/** The days of a project: one sentence, the reasons to scale, and each step with what happens. */
const props = defineProps<{ project: Project; desk: ProjectOnDesk }>()
const chosen = defineModel<string>({ required: true })
const held = useDays(props.desk, () => props.project)
const { days, working, failed } = held
const onPhone = useMediaQuery('(max-width: 820px)')
const asLines = ref(false)
const settings = ref(false)
const step = computed(() => days.value?.steps.find((one) => one.key === chosen.value))
/** What is done lies folded on a phone, so that what is next is at hand. */
const past = computed(() => days.value?.steps.filter((one) => one.state === 'done').length ?? 0)
const unfolded = ref<boolean>()
const folds = computed(() => past.value > 0 && !(unfolded.value ?? !onPhone.value))
const drawn = computed<Days | undefined>(() => {
  if (!days.value || !folds.value) return days.value
  return {
    ...days.value,
    steps: days.value.steps.filter(({ state, key }) => state !== 'done' || key === chosen.value),
  }
})
/** What cannot be planned at all is said at the head. */
const unread = computed(() => days.value?.problems.filter((one) => one.place !== 'days') ?? [])
const isEmpty = computed(() => days.value && !days.value.steps.length)
</script>

<template>
  <div v-if="failed" class="page" role="alert">
    <h1>The days could not be worked out</h1>
    <p class="quiet">The server does not answer. Nothing is lost.</p>
    <v-btn @click="held.refetch()">Try again</v-btn>
  </div>
  <div v-else-if="!days" class="page quiet" role="status">Working the days out …</div>
  <div v-else class="days">
    <Teleport defer to="#header-acts"><OnPaper :project="project.id" /></Teleport>
    <div class="in">
      <div class="top">
        <div class="head">
          <h1>{{ days.headline }}</h1>
          <p
            class="says"
            :class="{ late: days.is_late }"
            :role="days.is_late && !days.width ? 'alert' : 'status'"
          >
            {{ days.says }}
          </p>
          <p v-if="days.next" class="next">{{ days.next }}</p>
        </div>
        <div class="acts">
          <v-btn @click="settings = true">When there is time</v-btn>
          <v-btn :aria-expanded="asLines" @click="asLines = !asLines">Steps as lines</v-btn>
        </div>
      </div>
      <ChangeLine v-if="desk.offline.value || desk.waiting.value" :held="desk" change="" />
      <NoticeLine v-for="one in unread" :key="one.place + one.message" wrong>
        {{ one.place }}: {{ one.message }}
      </NoticeLine>
      <NoticeLine v-for="one in days.asks" :key="one">{{ one }}</NoticeLine>
      <DaysLines v-if="asLines" :project="project" :days="days" :desk="desk" />
      <p v-if="isEmpty" class="quiet">
        <RouterLink :to="`/projects/${project.id}`">Add parts at the desk</RouterLink>, or type
        steps of your own as lines.
      </p>
      <v-btn
        v-if="past"
        class="past"
        variant="text"
        min-height="44"
        :aria-expanded="!folds"
        @click="unfolded = folds"
        >{{ counted(past, 'step') }} done: {{ folds ? 'show' : 'fold' }}</v-btn
      >
      <DaysList
        v-if="drawn && !isEmpty && (onPhone || !days.width)"
        v-model="chosen"
        :days="drawn"
        :held="held"
        :project="project"
      />
      <div v-else-if="drawn && !isEmpty" class="both" :class="{ open: step }">
        <DaysDrawing v-model="chosen" :days="drawn" />
        <aside v-if="step" class="side">
          <div class="side-head">
            <h2>{{ step.name }}</h2>
            <v-btn size="small" variant="text" @click="chosen = ''">Close</v-btn>
          </div>
          <StepCard :key="step.key" :step="step" :held="held" :project="project" />
        </aside>
      </div>
      <p v-if="days.gone.length" class="fine">
        Begun or done, and no step any more: {{ days.gone.join(', ') }}. Call a step so, and it is
        known again.
      </p>
      <details v-if="days.not_timed.length" class="quiet fine">
        <summary>
          {{ counted(days.not_timed.length, 'line') }} of work on parts, about two minutes a piece
        </summary>
        <ul>
          <li v-for="one in days.not_timed" :key="one">{{ one }}</li>
        </ul>
      </details>
      <p class="quiet fine">
        Minutes are reckoned from counts, by common practice; times are those of {{ days.zone }}.
      </p>
      <CautionList class="fine" :cautions="days.cautions" />
    </div>
    <WouldDo v-if="days.would_do.length" :days="days" :desk="desk" />
    <DaysFoot v-if="days.width" class="foot" :days="days" :working="working" />
    <SettingsDialog
      v-if="settings"
      v-model="settings"
      :project="project"
      :desk="desk"
      only="Days"
    />
  </div>
</template>

<style scoped>
.days {
  display: flex;
  flex-direction: column;
  min-height: calc(100dvh - var(--head) - var(--foot));
}

.in {
  flex: 1;
  min-width: 0;
  padding: 18px 28px 28px;
}

.top {
  display: flex;
  flex-wrap: nowrap;
  gap: 18px;
  align-items: flex-start;
  justify-content: space-between;
  margin-bottom: 14px;
}

.past {
  margin-left: -12px;
}

h1 {
  margin: 0;
  font-size: var(--text-title);
  font-stretch: var(--wide);
  font-weight: 680;
  line-height: 1.25;
}

.head {
  flex: 1 1 0;
  min-width: 0;
}

.says,
.next {
  margin: 2px 0 0;
}

.says::first-letter {
  text-transform: uppercase;
}

.says.late {
  color: rgb(var(--v-theme-error));
}

.next::first-letter {
  text-transform: uppercase;
}

.next {
  font-weight: 650;
}

.acts {
  display: flex;
  flex: none;
  flex-wrap: wrap;
  gap: 8px;
  justify-content: flex-end;
}

.both.open {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 18px;
}

.side {
  position: sticky;
  top: 8px;
  align-self: start;
  max-height: calc(100dvh - 110px);
  overflow-y: auto;
  border-left: 3px solid rgb(var(--v-theme-primary));
  background: rgb(var(--v-theme-surface));
}

.side-head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  padding: 10px 8px 0 14px;
}

h2 {
  margin: 0;
  font-size: var(--text-large);
  font-stretch: var(--wide);
}

.fine {
  margin: 14px 0 0;
  font-size: var(--text-small);
  max-width: 70em;
}

.foot {
  position: sticky;
  bottom: var(--foot);
  z-index: 6;
}

@media (max-width: 820px) {
  .in {
    padding: 12px 12px 24px;
  }

  .top {
    flex-direction: column;
    gap: 10px;
  }

  .head {
    flex: none;
  }

  .acts {
    justify-content: flex-start;
  }
}
</style>
