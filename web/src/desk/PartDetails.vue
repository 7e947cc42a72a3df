<script setup lang="ts">
import type { Outcome, Part, PartField } from '../api/client'
import { PART_FIELDS } from '../api/fields'
import SlantSketch from '../drawing/SlantSketch.vue'
import EditableCell from '../shared/EditableCell.vue'
import LengthText from '../shared/LengthText.vue'
import SectionText from '../shared/SectionText.vue'

interface Bound {
  saved: string
  draft: string | undefined
  label: string
  place: string
  save: (text: string) => Promise<Outcome<unknown>>
}

defineProps<{ part: Part; pair: string; bind: (field: PartField, label: string) => Bound }>()
defineEmits<{ remove: [] }>()

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
      <EditableCell v-bind="bind(name, heading)" :takes-length="isLength">
        <template v-if="part[name]">{{ part[name] }}</template>
        <span v-else class="quiet hint">{{ help }}</span>
      </EditableCell>
      <SlantSketch v-if="name === 'ends' || name === 'edges'" :slant="part.slant" :of="name" />
    </div>
    <p v-if="part.section" class="remark quiet">
      Really <SectionText :section="part.section" /> ({{ part.section_source }});
      <template v-if="part.weight">one weighs {{ part.weight }} air-dry.</template>
      <template v-else>what it weighs is not known.</template>
    </p>
    <p v-if="part.angles" class="remark quiet">
      Ends: {{ part.angles
      }}<template v-if="part.over_all">; <LengthText :length="part.over_all" /> over all</template>.
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
    <v-btn size="small" class="gap-above" @click="$emit('remove')">Remove {{ part.called }}</v-btn>
  </div>
</template>

<style scoped>
.panel {
  padding: 8px 0 6px;
}

.field {
  display: grid;
  grid-template-columns: 112px 1fr;
  align-items: baseline;
  font-size: var(--text-small);
  padding: 2px 0;
}

.field :deep(input:not(:focus)) {
  border-bottom-color: rgb(var(--v-theme-rule));
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
