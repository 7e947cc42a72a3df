<script setup lang="ts">
import { ref } from 'vue'
import { type Outcome, type Part, PART_FIELDS, type PartField, type Project } from '../api'
import { SlantSketch } from '../drawing'
import { WorkOut } from '../measures'
import { ShapeView } from '../shapes'
import { EditableCell, LengthText, SectionText } from '../shared'

interface Bound {
  saved: string
  draft: string | undefined
  label: string
  place: string
  save: (text: string) => Promise<Outcome<unknown>>
}

defineProps<{
  part: Part
  pair: string
  project: Pick<Project, 'id'>
  bind: (field: PartField, label: string) => Bound
}>()
defineEmits<{ remove: []; mark: [] }>()

const working = ref(false)
const FORMULAS: readonly string[] = [
  ...PART_FIELDS.filter((field) => field.isLength).map((field) => field.name),
  'ends',
  'edges',
]
const FACES: Record<string, string> = {
  'long-long': 'Long point to long point',
  edge: 'Along the edge',
  'short-short': 'Short point to short point',
  centre: 'Along the middle',
}

function followed(part: Part, field: string): string {
  const found = part.follows.find((one) => one.field === field)
  return found ? `${found.exact ? '' : '≈'}${found.value}` : ''
}

const IN_THE_ROW = ['quantity', 'name', 'stock', 'length']
const FIRST = ['group', 'note']
const FIELDS = PART_FIELDS.filter((field) => !IN_THE_ROW.includes(field.name)).sort(
  (one, two) => Number(FIRST.includes(two.name)) - Number(FIRST.includes(one.name)),
)
</script>

<template>
  <div class="panel" role="cell">
    <div v-for="{ name, heading, help, isLength } in FIELDS" :key="name" class="field">
      <span class="label">{{ heading }}</span>
      <EditableCell
        v-bind="bind(name, heading)"
        :takes-length="isLength"
        :formula="FORMULAS.includes(name) ? 'after =' : undefined"
      >
        <template v-if="followed(part, name)"
          ><span class="follows" :title="part[name]">=</span> {{ followed(part, name) }}</template
        >
        <template v-else-if="part[name]">{{ part[name] }}</template>
        <span v-else class="quiet hint">{{ help }}</span>
      </EditableCell>
      <SlantSketch v-if="name === 'ends' || name === 'edges'" :slant="part.slant" :of="name" />
    </div>
    <p v-if="part.computed" class="remark">
      The tape said <LengthText :length="part.length_shown" /> on {{ part.taped_on }}; worked out it
      would be <LengthText :length="part.computed" />.
      <v-btn size="small" @click="bind('taped', '').save('')">Take the worked out one</v-btn>
    </p>
    <p v-if="part.section" class="remark quiet">
      Really <SectionText :section="part.section" /> ({{ part.section_source }});
      <template v-if="part.weight">one weighs {{ part.weight }} air-dry.</template>
      <template v-else>what it weighs is not known.</template>
    </p>
    <div v-if="part.sketch" class="remark">
      <ShapeView :view="part.sketch" :called="part.called" />
      <p class="quiet">
        Cut from a square piece, then shaped: {{ part.shaping.join('; ') }}. Measured from the left
        end and the bottom edge, {{ part.sketch.ratio }}.
      </p>
    </div>
    <p v-if="part.angles" class="remark quiet">
      Ends: {{ part.angles
      }}<template v-if="part.over_all">; <LengthText :length="part.over_all" /> over all</template>.
      <template v-for="face in part.other_faces" :key="face.called">
        {{ FACES[face.called] ?? face.called }} <LengthText :length="face.length" />.
      </template>
      <template v-if="pair">Left and right: the mirror image of {{ pair }}.</template>
    </p>
    <p v-if="part.bevels" class="remark quiet">
      Edges: {{ part.bevels }}; the width is that of the wider face.
    </p>
    <p v-if="part.sawn" class="remark quiet">
      Sawn <LengthText :length="part.sawn" />, finished
      <LengthText :length="part.over_all ?? part.length_shown" />.
    </p>
    <p v-for="warning in part.warnings" :key="warning" class="remark">{{ warning }}</p>
    <div class="acts gap-above">
      <v-btn size="small" @click="working = true">Work out its length …</v-btn>
      <v-btn v-if="part.pieces > 1" size="small" @click="$emit('mark')">Mark along its edge</v-btn>
      <v-btn size="small" @click="$emit('remove')">Remove {{ part.called }}</v-btn>
    </div>
    <WorkOut
      v-if="working"
      v-model="working"
      :project="project"
      :called="part.called"
      :take="bind('length', 'Length').save"
    />
  </div>
</template>

<style scoped>
.follows {
  font-weight: 700;
  color: rgb(var(--v-theme-primary));
}

.panel {
  padding: 8px 0 6px;
}

.field {
  display: grid;
  grid-template-columns: 126px 1fr;
  align-items: baseline;
  font-size: var(--text-small);
  padding: 2px 0;
}

.field :deep(input:not(:focus)) {
  border-bottom-color: rgb(var(--v-theme-rule));
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.label {
  color: rgb(var(--v-theme-quiet));
}

.hint {
  font-size: var(--text-fine);
}

.remark {
  font-size: var(--text-small);
  margin: 6px 0 0;
}
</style>
