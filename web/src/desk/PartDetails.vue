<script setup lang="ts">
import type { Outcome, Part, PartField } from '../api/client'
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

defineProps<{ part: Part; bind: (field: PartField, label: string) => Bound }>()
defineEmits<{ remove: [] }>()

const FIELDS: { field: PartField; label: string; hint: string }[] = [
  { field: 'group', label: 'Group', hint: 'frame, boarding …' },
  { field: 'note', label: 'Note', hint: 'for yourself' },
  { field: 'thickness', label: 'Thickness', hint: 'where it is not the stock’s own' },
  { field: 'width', label: 'Width', hint: 'where it is not the stock’s own' },
  { field: 'ends', label: 'End angles', hint: 'left and right, such as 20 -20' },
  { field: 'edges', label: 'Bevelled edges', hint: 'left and right, such as 45 45' },
  { field: 'measured', label: 'Measured', hint: 'long-long, edge, short-short, centre' },
  { field: 'grain', label: 'Grain', hint: 'length or any (sheets)' },
  { field: 'rip', label: 'Ripped', hint: 'yes or no: where it differs from the project' },
  { field: 'resaw', label: 'Sawn thinner', hint: 'yes or no: where it differs' },
  { field: 'own_stock', label: 'Own stock only', hint: 'yes or no: where it differs' },
  {
    field: 'extra_length',
    label: 'Extra length',
    hint: 'trimmed later: where it is not the project’s',
  },
  { field: 'extra_width', label: 'Extra width', hint: 'planed off a sawn face' },
  { field: 'extra_thickness', label: 'Extra thickness', hint: 'planed off a sawn face' },
  { field: 'clear', label: 'Clear', hint: 'no: a flaw may lie on it' },
  { field: 'show', label: 'Seen', hint: 'yes: the best boards are for it' },
  { field: 'boards', label: 'Rack boards', hint: 'from these only: 12 14; or not 12' },
]
</script>

<template>
  <div class="panel" role="cell">
    <div v-for="{ field, label, hint } in FIELDS" :key="field" class="field">
      <span class="label">{{ label }}</span>
      <EditableCell
        v-bind="bind(field, label)"
        :takes-length="/thickness|width|extra_length/.test(field)"
      >
        <template v-if="part[field]">{{ part[field] }}</template>
        <span v-else class="quiet hint">{{ hint }}</span>
      </EditableCell>
    </div>
    <p v-if="part.section" class="remark quiet">
      Really <SectionText :section="part.section" /> ({{ part.section_source }});
      <template v-if="part.weight">one weighs {{ part.weight }} air-dry.</template>
      <template v-else>what it weighs is not known.</template>
    </p>
    <p v-if="part.angles" class="remark quiet">
      Ends: {{ part.angles
      }}<template v-if="part.over_all">; <LengthText :length="part.over_all" /> over all</template>.
      <template v-if="part.pair">Left and right: the mirror image of {{ part.pair }}.</template>
    </p>
    <p v-if="part.bevels" class="remark quiet">
      Edges: {{ part.bevels }}; the width is that of the wider face.
    </p>
    <p v-if="part.sawn" class="remark quiet">
      Sawn <LengthText :length="part.sawn" />, finished
      <LengthText :length="part.over_all ?? part.length_shown" />.
    </p>
    <p v-for="warning in part.warnings" :key="warning" class="remark">{{ warning }}</p>
    <v-btn size="small" class="mt-2" @click="$emit('remove')">Remove {{ part.called }}</v-btn>
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
  font-size: 0.86rem;
  padding: 2px 0;
}

.field :deep(input:not(:focus)) {
  border-bottom-color: rgb(var(--v-theme-rule));
}

.label {
  color: rgb(var(--v-theme-quiet));
}

.hint {
  font-size: 0.78rem;
}

.remark {
  font-size: 0.8rem;
  margin: 6px 0 0;
}
</style>
