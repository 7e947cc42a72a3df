<script setup lang="ts">
import { computed, defineAsyncComponent, inject, ref } from 'vue'
import type { Part, PartField } from '../api'
import type { Lighting } from '../drawing'
import type { ProjectOnDesk } from '../project'
import { EditableCell, LengthText, SectionText } from '../shared'
import type { Beside } from './SheetLine.vue'
import { SHOW_RUN } from './useFormulaNames'

const PartDetails = defineAsyncComponent(() => import('./PartDetails.vue'))
const props = defineProps<{
  part: Part
  beside: Beside
  desk: ProjectOnDesk
  lighting: Lighting
  drafts: Record<string, string>
}>()
const emit = defineEmits<{ keep: [field: string, text: string]; drop: [field: string] }>()
const showRun = inject(SHOW_RUN, undefined)
const open = ref(false)
const lit = computed(() => props.lighting.lit.value === props.part.id)
const selected = computed(() => props.lighting.selected.value === props.part.id)

const refused = ref('')

/** Marks its pieces along its edge: the run that does is shown. */
async function mark() {
  const outcome = await props.desk.markAlongEdge(props.part.id)
  refused.value = outcome.kind === 'refused' ? outcome.detail : ''
  if (outcome.kind === 'done') showRun?.(outcome.data.runs.at(-1)?.id ?? '')
}

/** What the formula of a field came to; nothing where it has none. */
function followed(field: string) {
  return props.part.follows.find((one) => one.field === field)
}

function bind(field: PartField, label: string) {
  const key = `${props.part.id}.${field}`
  return {
    saved: props.part[field],
    draft: props.drafts[key],
    label: `${label} of ${props.part.called}`,
    place: field,
    save: (text: string) => props.desk.changePart(props.part.id, field, text),
    onKeep: (text: string) => emit('keep', key, text),
    onDrop: () => emit('drop', key),
  }
}
</script>

<template>
  <div
    class="row"
    role="row"
    :data-part="part.id"
    :data-mark="part.mark"
    :class="{ lit, selected }"
    :aria-selected="selected"
    @pointerenter="lighting.hover(part.id)"
    @pointerleave="lighting.hover()"
    @focusin="lighting.select(part.id)"
  >
    <span role="cell" class="mark-cell">
      <button
        type="button"
        class="mark"
        :style="{ background: `rgb(var(--v-theme-${part.kind}))` }"
        :aria-expanded="open"
        :aria-label="`${part.mark}, details of ${part.called}`"
        @click="open = !open"
      >
        {{ part.mark }}
      </button>
    </span>
    <span role="cell">
      <EditableCell v-bind="bind('quantity', 'Count')" formula="after =" right class="figure big">{{
        followed('quantity')?.value ?? part.quantity
      }}</EditableCell>
      <span
        v-if="part.pieces > Number(followed('quantity')?.value ?? part.quantity)"
        class="times quiet"
        >= {{ part.pieces }}</span
      >
      <span v-if="beside.cut" class="times quiet">{{ beside.cut }} cut</span>
    </span>
    <span role="cell">
      <EditableCell v-bind="bind('name', 'Name')" class="name">{{ part.called }}</EditableCell>
      <span v-if="part.note" class="small quiet note">{{ part.note }}</span>
      <span v-if="part.fault" class="later">{{ part.fault }}</span>
      <span v-else-if="beside.later" class="later">not planned yet: {{ beside.later }}</span>
      <span v-if="part.by_hand.length" class="small quiet note">
        {{ part.by_hand.join(', ') }} by hand
        <button
          v-for="field in part.by_hand"
          :key="field"
          type="button"
          class="again"
          :aria-label="`${field} of ${part.called} follows its shape again`"
          @click="desk.followShape(part.shape ?? '', part.id, field)"
        >
          {{ part.by_hand.length > 1 ? `${field} follows again` : 'follow again' }}
        </button>
      </span>
      <span v-if="part.notches || part.outline" class="small quiet note">{{
        part.notches ? `notched ${part.notches}` : 'shaped by its outline'
      }}</span>
      <span v-if="part.together" class="small quiet note">kept together: {{ part.together }}</span>
      <span v-if="part.is_held" class="small quiet note">bought now, cut after measuring</span>
    </span>
    <span role="cell">
      <EditableCell v-bind="bind('stock', 'Stock')" class="stock">{{
        part.stock_name
      }}</EditableCell>
      <span v-if="part.section" class="small quiet section">
        <SectionText :section="part.section" :source="part.section_source" />
        <abbr
          v-if="part.section_source !== 'standard size'"
          :title="`real size at ${part.section_source}`"
          >yard</abbr
        >
      </span>
    </span>
    <span role="cell">
      <EditableCell
        v-bind="bind('length', 'Length')"
        formula="after ="
        right
        takes-length
        class="figure big"
      >
        <span v-if="followed('length')" class="follows" :title="part.length">=</span>
        <template v-if="part.length_shown.ticks"
          ><template v-if="followed('length')?.exact === false && part.length_shown.exact"
            >≈</template
          ><LengthText :length="part.length_shown" /></template
        ><span v-else class="unknown">?</span>
      </EditableCell>
      <span v-if="part.computed" class="small quiet ends">
        measured; else <LengthText :length="part.computed" />
      </span>
      <span v-if="part.angles" class="small quiet ends">{{ part.angles }}</span>
      <span v-if="part.bevels" class="small quiet ends">edges {{ part.bevels }}</span>
      <span v-if="part.sawn" class="small quiet ends">
        sawn <LengthText :length="part.sawn" />
      </span>
    </span>
    <PartDetails
      v-if="open"
      class="details"
      :part="part"
      :pair="beside.pair"
      :project="desk.project.value ?? { id: '' }"
      :bind="bind"
      @remove="desk.removeParts([part.id])"
      @mark="mark"
    />
    <p v-if="refused" class="later details" role="alert">{{ refused }}</p>
  </div>
</template>

<style scoped>
.again {
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
  padding: 0;
}

.row {
  align-items: start;
  line-height: 1.22;
  padding-top: 3px !important;
  padding-bottom: 4px !important;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  border-left: 4px solid transparent;
  padding-left: 6px !important;
}

.lit {
  background: rgb(var(--v-theme-selected));
}

.selected {
  border-left-color: rgb(var(--v-theme-primary));
}

.mark {
  min-width: 26px;
  height: 24px;
  padding: 0 4px;
  border-radius: var(--corner);
  color: rgb(var(--v-theme-on-wood));
  font-weight: 700;
  font-size: var(--text-small);
  border: 1px solid rgb(var(--v-theme-on-wood), 0.2);
  cursor: pointer;
}

.ends {
  display: block;
  text-align: right;
}

.follows {
  margin-right: 3px;
  font-weight: 700;
  color: rgb(var(--v-theme-primary));
}

.unknown {
  color: rgb(var(--v-theme-error));
}

.big {
  font-size: var(--text-body);
}

.name {
  font-weight: 560;
}

.stock {
  font-weight: 620;
  font-stretch: 88%;
  font-size: var(--text-plain);
}

.small {
  font-size: var(--text-fine);
}

.section,
.note {
  padding-left: 2px;
}

.note {
  display: block;
}

.times {
  display: block;
  font-size: var(--text-fine);
  text-align: right;
  padding-right: 2px;
}

.later {
  display: block;
  font-size: var(--text-fine);
  padding-left: 2px;
  color: rgb(var(--v-theme-error));
}

abbr {
  text-decoration: none;
  border-bottom: 1px dotted;
  margin-left: 4px;
}

.details {
  grid-column: 2 / -1;
}
</style>
