<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, defineAsyncComponent, nextTick, provide, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useLighting } from '../drawing'
import { PartsImport } from '../imports'
import { TakeAway } from '../list'
import { MarksLeaf, MeasuresLeaf } from '../measures'
import { SettingsDialog, useProject } from '../project'
import { DrawingLeaf } from '../shapes'
import {
  ChangeLine,
  FORMULA_NAMES,
  HeldPage,
  isElsewhere,
  isTyping,
  LeafTabs,
  TallyLine,
} from '../shared'
import BoardsLeaf from './BoardsLeaf.vue'
import EntryLine from './EntryLine.vue'
import { inGroups } from './groups'
import MarkCut from './MarkCut.vue'
import PartSheet from './PartSheet.vue'
import SettingsStrip from './SettingsStrip.vue'
import { useEffectTold } from './useEffectTold'
import { SHOW_RUN, useFormulaNames } from './useFormulaNames'

// What is not in view at first comes when it is wanted.
const JointsLeaf = defineAsyncComponent(() => import('./JointsLeaf.vue'))

const GOES_IN = [
  { name: 'parts', label: 'Parts' },
  { name: 'measures', label: 'Measures' },
  { name: 'joints', label: 'Joints and hardware' },
]
const COMES_OUT = [
  { name: 'boards', label: 'Boards' },
  { name: 'drawing', label: 'Drawing' },
  { name: 'marks', label: 'Marks' },
]

const route = useRoute()
const router = useRouter()
const id = String(route.params.id)
const desk = useProject(id)
const { project, plan, outdated, failed, planning } = desk
const effect = useEffectTold(desk)
const lighting = useLighting(id)
const entry = useTemplateRef<InstanceType<typeof EntryLine>>('entry')
const sheet = useTemplateRef<InstanceType<typeof PartSheet>>('sheet')
const settings = ref(false)
const importing = ref(false)
const leaf = computed({
  get: () => GOES_IN.find(({ name }) => name === route.query.leaf)?.name ?? 'parts',
  set: (name) => void router.replace({ query: name === 'parts' ? {} : { leaf: name } }),
})
const right = ref('boards')
const run = ref('')
const shape = ref('')
provide(FORMULA_NAMES, useFormulaNames(project))

/** The run whose marks are looked at: they come out on the other side. */
function showRun(id: string) {
  run.value = id
  if (id) right.value = 'marks'
}

provide(SHOW_RUN, showRun)

/** The shape that is looked at. */
function showShape(id: string) {
  shape.value = id
  if (id) right.value = 'drawing'
}

function focusLength(part: string | undefined) {
  if (!part) return
  const cells = document.querySelectorAll<HTMLInputElement>(`[data-part="${part}"] input`)
  const length = [...cells].find((cell) => cell.getAttribute('aria-label')?.startsWith('Length'))
  length?.focus()
}

function move(by: number) {
  const parts = [...inGroups(project.value?.parts ?? []).values()].flat()
  if (!parts.length) return
  const at = parts.findIndex((part) => part.id === lighting.selected.value)
  const next = parts[Math.min(parts.length - 1, Math.max(0, at + by))] ?? parts[0]
  lighting.select(next?.id)
  if (next) sheet.value?.show(next.id)
}

async function removeSelected() {
  const selected = lighting.selected.value
  if (!selected) return
  await desk.removeParts([selected])
  lighting.select()
}

/** Parts that were just added are selected and in view. */
async function showAdded(ids: string[]) {
  const last = ids.at(-1)
  if (!last) return
  lighting.select(last)
  await nextTick()
  sheet.value?.show(last)
}

const KEYS: Record<string, () => unknown> = {
  n: async () => {
    leaf.value = 'parts'
    await nextTick()
    entry.value?.focus()
  },
  j: () => move(1),
  k: () => move(-1),
  e: () => focusLength(lighting.selected.value),
  x: removeSelected,
  p: () => (leaf.value = 'parts'),
  m: () => (leaf.value = 'measures'),
  h: () => (leaf.value = 'joints'),
  s: () => (settings.value = true),
  i: () => (importing.value = true),
  d: () => (right.value = 'drawing'),
  b: () => (right.value = 'boards'),
  l: () => router.push(`/projects/${id}/list`),
}

useEventListener('keydown', (event: KeyboardEvent) => {
  if (isElsewhere(event) || isTyping(event)) return
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const act = KEYS[event.key.toLowerCase()]
  if (!act) return
  event.preventDefault()
  void nextTick(() => act())
})
</script>

<template>
  <HeldPage
    v-slot="{ thing: held }"
    :held="desk"
    called="The project"
    fetching="Laying out the boards"
  >
    <div class="desk">
      <h1 class="said-only">{{ held.name }}</h1>
      <Teleport defer to="#header-acts"><TakeAway :project="held" /></Teleport>
      <div class="sheet-pane">
        <SettingsStrip :project="held" @settings="settings = true" @importing="importing = true" />
        <LeafTabs v-model="leaf" :leaves="GOES_IN" called="What goes in" />
        <div v-if="leaf !== 'measures'" class="scroll" tabindex="-1">
          <PartSheet
            v-if="leaf === 'parts'"
            ref="sheet"
            :project="held"
            :plan="plan"
            :desk="desk"
            :lighting="lighting"
          />
          <JointsLeaf v-else-if="leaf === 'joints'" :project="held" :plan="plan" :desk="desk" />
        </div>
        <MeasuresLeaf
          v-if="leaf === 'measures'"
          :run="run"
          :shape="shape"
          :project="held"
          :desk="desk"
          @update:run="showRun"
          @update:shape="showShape"
        />
        <EntryLine
          v-if="leaf === 'parts'"
          ref="entry"
          :project="held"
          :desk="desk"
          @added="showAdded"
        />
      </div>
      <div class="boards-side">
        <LeafTabs v-model="right" :leaves="COMES_OUT" called="What comes out" />
        <DrawingLeaf
          v-if="right === 'drawing'"
          v-model:shape="shape"
          :project="held"
          :lighting="lighting"
        />
        <MarksLeaf v-else-if="right === 'marks'" v-model:run="run" :project="held" :desk="desk" />
        <BoardsLeaf
          v-else
          :project="held"
          :plan="plan"
          :failed="failed"
          :desk="desk"
          :lighting="lighting"
        />
      </div>
      <div class="foot-bar">
        <ChangeLine class="change" :held="desk" :change="held.change">
          <template v-if="held.change">
            {{ held.change
            }}<template v-if="effect"
              >: <strong>{{ effect }}</strong></template
            >
          </template>
        </ChangeLine>
        <MarkCut v-if="plan" :plan="plan" :desk="desk" />
      </div>
      <TallyLine
        v-if="plan"
        class="foot"
        :plan="plan"
        :planning="planning"
        :outdated="outdated"
        :failed="failed"
        :yard="held.yard?.name"
        @stop="desk.stopPlanning"
        @again="desk.planAgain"
      />
      <SettingsDialog v-if="settings" v-model="settings" :project="held" :desk="desk" />
      <PartsImport v-if="importing" v-model="importing" :project="held" :desk="desk" />
    </div>
  </HeldPage>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: 430px minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr) auto auto;
  height: calc(100dvh - var(--head));
}

.sheet-pane {
  grid-row: 1 / 3;
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: rgb(var(--v-theme-surface));
  border-right: 1px solid rgb(var(--v-theme-rule));
}

.scroll {
  flex: 1;
  overflow-y: auto;
  min-height: 0;
}

.boards-side {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}

.foot-bar {
  grid-column: 2;
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 32px;
  padding: 0 14px 0 18px;
  border-top: 1px solid rgb(var(--v-theme-rule));
}

.change {
  flex: 1;
  min-width: 0;
  margin: 0;
  padding: 3px 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.foot {
  grid-column: 1 / -1;
}

@media (max-width: 900px) {
  .desk {
    display: flex;
    flex-direction: column;
    height: auto;
  }

  .scroll {
    overflow: visible;
  }

  .foot {
    position: sticky;
    bottom: var(--foot);
    z-index: 6;
  }
}
</style>
