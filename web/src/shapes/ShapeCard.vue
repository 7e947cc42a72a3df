<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Project, Shape } from '../api'
import { ChoiceSelect, EditableCell, useDrafts, ValueText } from '../shared'
import { isFigure, kindOf, usualOf, type Ask } from './asks'
import type { Shapes } from './useShapes'

/** One shape: what it is asked, what it wrote, and how it is let go. */
const props = defineProps<{ shape: Shape; project: Project; chosen: boolean; shapes: Shapes }>()
const emit = defineEmits<{ choose: [id: string] }>()
const { drafts, keep, drop } = useDrafts(`${props.project.id}:shapes`)
const refused = ref('')
const asks = computed(() => kindOf(props.shape.shape).asks)
const byHand = computed(() =>
  props.project.parts.filter((part) => part.shape === props.shape.id && part.by_hand.length),
)
const elsewhere = computed(() =>
  props.shape.problems.filter(({ place }) => !asks.value.some(({ name }) => name === place)),
)
const copies = computed(() => props.shape.values.copies?.text ?? '1')

function typed(ask: Ask): string {
  return props.shape.measures[ask.name] ?? ''
}

function wrong(ask: Ask): string {
  return props.shape.problems.find(({ place }) => place === ask.name)?.message ?? ''
}

/** Its value, where what was typed does not say it already. */
function value(ask: Ask) {
  const found = props.shape.values[ask.name]
  const said = typed(ask).replace(/ ?(in|mm|°)$/, '')
  return found && said && found.text.replace('°', '') !== said ? found : undefined
}

function cell(field: string, saved: string, label: string, save: (text: string) => unknown) {
  const key = `${props.shape.id}.${field}`
  return {
    saved,
    draft: drafts.value[key],
    label: `${label} of ${props.shape.called}`,
    place: field,
    save: save as never,
    onKeep: (text: string) => keep(key, text),
    onDrop: () => drop(key),
  }
}

function bind(ask: Ask) {
  return cell(ask.name, typed(ask), ask.heading, (text) =>
    props.shapes.changeShape(props.shape.id, { measures: { [ask.name]: text } }),
  )
}

async function choose(ask: Ask, text: string) {
  const outcome = await props.shapes.changeShape(props.shape.id, {
    measures: { [ask.name]: text },
  })
  refused.value = outcome.kind === 'refused' ? outcome.detail : ''
}

async function act(changed: ReturnType<Shapes['letGo']>) {
  const outcome = await changed
  refused.value = outcome.kind === 'refused' ? outcome.detail : ''
}
</script>

<template>
  <section class="card" :class="{ chosen }" :aria-label="`shape ${shape.called}`">
    <button
      type="button"
      class="head"
      :aria-expanded="chosen"
      @click="emit('choose', chosen ? '' : shape.id)"
    >
      <span class="called">{{ shape.called }}</span>
      <span class="quiet asked"
        >{{ shape.heading.toLowerCase()
        }}<template v-if="shape.writes.length">
          · writes {{ shape.writes.join(' ') }}</template
        ></span
      >
      <span class="figure count">{{ copies === '1' ? '' : `× ${copies}` }}</span>
    </button>
    <p v-if="!chosen && shape.problems.length" class="wrong">
      {{ shape.problems.map((one) => `${one.place} ${one.message}`.trim()).join('; ') }}
    </p>
    <div v-if="chosen" class="inside">
      <div class="field">
        <span class="quiet">Called</span>
        <EditableCell
          v-bind="
            cell('called', shape.called, 'Name', (called) =>
              shapes.changeShape(shape.id, { called }),
            )
          "
        />
      </div>
      <div v-for="ask in asks" :key="ask.name" class="field">
        <span class="quiet">{{ ask.heading }}</span>
        <ChoiceSelect
          v-if="ask.kind === 'choice'"
          :model-value="typed(ask) || ask.usual"
          :called="`${ask.heading} of ${shape.called}`"
          :choices="ask.choices.map((one) => ({ value: one, title: one }))"
          @update:model-value="(choice: string) => choose(ask, choice)"
        />
        <EditableCell v-else v-bind="bind(ask)" :formula="isFigure(ask) ? 'as it is' : undefined">
          <template v-if="typed(ask)">{{ typed(ask) }}</template>
          <span v-else class="quiet hint">{{ usualOf(ask) }}</span>
        </EditableCell>
        <span v-if="value(ask)" class="figure value"><ValueText :value="value(ask)!" /></span>
        <span v-if="wrong(ask)" class="wrong">{{ wrong(ask) }}</span>
      </div>
      <p v-for="one in elsewhere" :key="one.message" class="wrong">{{ one.message }}</p>
      <p v-if="byHand.length" class="quiet">
        Typed by hand, and kept:
        {{ byHand.map((part) => `${part.mark} ${part.by_hand.join(', ')}`).join('; ') }}.
      </p>
      <p v-if="shape.left_out.length" class="quiet">
        Taken away, and left out: {{ shape.left_out.join(', ') }}.
      </p>
      <div class="acts">
        <v-btn
          v-if="byHand.length || shape.left_out.length"
          size="small"
          @click="act(shapes.followAgain(shape.id))"
          >All follows again</v-btn
        >
        <v-btn size="small" @click="act(shapes.letGo(shape.id, false))">Let it go</v-btn>
        <v-btn size="small" @click="act(shapes.letGo(shape.id, true))">Remove with its parts</v-btn>
      </div>
      <p class="quiet">Let go, what it wrote stays; only the link to it is gone.</p>
      <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
    </div>
  </section>
</template>

<style scoped src="../styles/card.css"></style>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
}
</style>
