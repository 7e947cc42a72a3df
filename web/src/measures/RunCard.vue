<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Outcome, type Run, RUN_FIELDS, type RunField, useFaults } from '../api'
import { ChoiceSelect, EditableCell, LengthText } from '../shared'
import type { Measures } from './useMeasures'

/** One run: what is asked of it, and how it lies. */
const props = defineProps<{
  run: Run
  chosen: boolean
  measures: Measures
  cell: (
    row: Run,
    field: RunField,
    label: string,
  ) => {
    saved: string
    draft: string | undefined
    label: string
    place: string
    save: (text: string) => Promise<Outcome<unknown>>
  }
}>()
const emit = defineEmits<{ choose: [id: string] }>()
const faults = useFaults('line')
const line = ref('')
const writing = ref(false)

const OF_FORMULAS: readonly string[] = ['along', 'item', 'figure', 'gap', 'first', 'last', 'least']
const OF_SIDING: readonly string[] = ['least']
const OF_EQUAL: readonly string[] = ['first', 'last', 'packers', 'left_out', 'loose']
const isSiding = computed(() => props.run.way === 'lap' || props.run.way === 'exposure')
const fields = computed(() =>
  RUN_FIELDS.filter(({ name }) => {
    if (name === 'gap') return isSiding.value || props.run.way === 'count'
    return !(isSiding.value ? OF_EQUAL : OF_SIDING).includes(name)
  }),
)
const laid = computed(() => props.run.laid)
const way = computed(
  () =>
    RUN_FIELDS.find((one) => one.name === 'way')?.choices.find((c) => c.value === props.run.way)
      ?.title,
)

function wrong(name: string): string {
  return props.run.problems.find((one) => one.place === name)?.message ?? ''
}

const elsewhere = computed(() =>
  props.run.problems.filter((one) => !fields.value.some(({ name }) => name === one.place)),
)

async function write() {
  writing.value = true
  const outcome = await props.measures.writePart(props.run.id, line.value)
  writing.value = false
  if (faults.settle(outcome)) line.value = ''
}

async function remove() {
  faults.settle(await props.measures.removeRun(props.run.id))
}

function choices(name: string) {
  return RUN_FIELDS.find((one) => one.name === name)?.choices ?? []
}
</script>

<template>
  <section class="card" :class="{ chosen }" :aria-label="`run ${run.name}`">
    <button
      type="button"
      class="head"
      :aria-expanded="chosen"
      @click="emit('choose', chosen ? '' : run.id)"
    >
      <span class="called">{{ run.name }}</span>
      <span class="quiet asked">{{ way }} {{ run.figure }}</span>
      <span class="figure count">{{ laid ? laid.count : '?' }}</span>
    </button>
    <p v-if="!chosen && run.problems.length" class="wrong">
      {{ run.problems.map((one) => `${one.place} ${one.message}`).join('; ') }}
    </p>
    <div v-if="chosen" class="inside">
      <div v-if="laid" class="told">
        <p>
          <strong
            >{{ laid.count }},
            <template v-if="laid.gap">gap <LengthText :length="laid.gap" /></template
            ><template v-else-if="laid.exposure"
              >each shows <LengthText :length="laid.exposure" /></template></strong
          ><template v-if="laid.pieces !== laid.count">, {{ laid.pieces }} to cut</template>
        </p>
        <p v-if="laid.gap">
          Exactly {{ laid.exact_gap }}.
          <template v-for="(one, index) in laid.neighbours" :key="one.count"
            >{{ index ? ', ' : '' }}{{ one.count }} would leave <LengthText :length="one.gap"
          /></template>
        </p>
        <p v-if="laid.rows && laid.last">
          The last is ripped to <LengthText :length="laid.last" /><template
            v-if="laid.is_shifted && laid.first"
            >; the first, too, to <LengthText :length="laid.first" />: else the last were too
            narrow</template
          >.
        </p>
        <p v-if="!run.along && !isSiding">Together they are <LengthText :length="laid.along" />.</p>
        <p v-for="one in laid.openings" :key="one.number">
          Without {{ one.number }} there is an opening of <LengthText :length="one.width" />.
        </p>
        <p v-if="laid.caution" class="quiet">{{ laid.caution }}</p>
      </div>
      <div v-for="field in fields" :key="field.name" class="field">
        <span class="quiet">{{ field.heading }}</span>
        <ChoiceSelect
          v-if="field.choices.length"
          :model-value="String(run[field.name])"
          :called="`${field.heading} of ${run.name}`"
          :choices="choices(field.name)"
          @update:model-value="
            (choice: string) => measures.changeRun(run.id, { [field.name]: choice })
          "
        />
        <EditableCell
          v-else
          v-bind="cell(run, field.name, field.heading)"
          :formula="OF_FORMULAS.includes(field.name) ? 'as it is' : undefined"
        >
          <template v-if="run[field.name]">{{ run[field.name] }}</template>
          <span v-else class="quiet hint">{{ field.help }}</span>
        </EditableCell>
        <span v-if="wrong(field.name)" class="wrong">{{ wrong(field.name) }}</span>
      </div>
      <p v-for="one in elsewhere" :key="one.message" class="wrong">{{ one.message }}</p>
      <form v-if="!run.part" class="write" @submit.prevent="write">
        <v-text-field
          v-model="line"
          label="Write its part: name, stock, length"
          placeholder="picket 1x4 cedar 42"
          :error-messages="faults.problems.value.map((one) => one.message)"
        />
        <v-btn type="submit" :loading="writing" :disabled="!line.trim()">Write</v-btn>
      </form>
      <p v-else class="quiet">Lays part {{ run.part }}: as many as it has, as wide as it is.</p>
      <p v-if="run.used_by.length" class="quiet">Used in {{ run.used_by.join(', ') }}.</p>
      <v-btn size="small" @click="remove">Remove run {{ run.name }}</v-btn>
      <p v-if="run.part && faults.problems.value.length" class="wrong" role="alert">
        {{ faults.problems.value[0]?.message }}
      </p>
    </div>
  </section>
</template>

<style scoped src="../styles/card.css"></style>

<style scoped>
.told {
  margin: 6px 0 10px;
  padding: 6px 12px;
  border-left: 4px solid rgb(var(--v-theme-proven));
  background: rgb(var(--v-theme-proven), 0.07);
  font-size: var(--text-plain);
}

.write {
  display: flex;
  gap: 8px;
  align-items: start;
  margin: 12px 0 8px;
}

.write > :first-child {
  flex: 1;
}
</style>
