<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import BoardPane from '../drawing/BoardPane.vue'
import PartsImport from '../imports/PartsImport.vue'
import NowherePage from '../shared/NowherePage.vue'
import TallyLine from '../shared/TallyLine.vue'
import TakeAway from '../list/TakeAway.vue'
import AlreadyCut from '../shared/AlreadyCut.vue'
import MarkCut from './MarkCut.vue'
import EntryLine from './EntryLine.vue'
import PartSheet from './PartSheet.vue'
import { inGroups } from './groups'
import SettingsDialog from './SettingsDialog.vue'
import ShortcutsDialog from './ShortcutsDialog.vue'
import { isTyping } from './shortcuts'
import { useLighting } from './useLighting'
import { useProject } from './useProject'

const route = useRoute()
const router = useRouter()
const id = String(route.params.id)
const desk = useProject(id)
const { project, plan, outdated, failed, missing, isError, planning, waiting, offline } = desk
const effect = computed(() => (outdated.value ? '' : plan.value?.effect))
const lighting = useLighting(id)
const entry = useTemplateRef<InstanceType<typeof EntryLine>>('entry')
const sheet = useTemplateRef<InstanceType<typeof PartSheet>>('sheet')
const settings = ref(false)
const shortcuts = ref(false)
const importing = ref(false)

function focusLength(part: string | undefined) {
  if (!part) return
  const cells = document.querySelectorAll<HTMLInputElement>(`[data-part="${part}"] input`)
  const length = [...cells].find((cell) => cell.ariaLabel?.startsWith('Length'))
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

const KEYS: Record<string, () => unknown> = {
  n: () => entry.value?.focus(),
  j: () => move(1),
  k: () => move(-1),
  e: () => focusLength(lighting.selected.value),
  x: removeSelected,
  s: () => (settings.value = true),
  i: () => (importing.value = true),
  l: () => router.push(`/projects/${id}/list`),
  '?': () => (shortcuts.value = true),
}

useEventListener('keydown', (event: KeyboardEvent) => {
  const target = event.target as HTMLElement
  if (settings.value || shortcuts.value || importing.value) return
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
    const changed = target.dataset.dirty || (target instanceof HTMLTextAreaElement && target.value)
    if (changed) return
    event.preventDefault()
    void desk.step(event.shiftKey ? 'redo' : 'undo')
    return
  }
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return
  const act = KEYS[event.key.toLowerCase()]
  if (!act) return
  event.preventDefault()
  void nextTick(() => act())
})
</script>

<template>
  <NowherePage v-if="missing" />
  <div v-else-if="isError && !project" class="page" role="alert">
    <h1>The project could not be loaded</h1>
    <p class="quiet">The server does not answer. Nothing is lost.</p>
    <v-btn @click="desk.refetch()">Try again</v-btn>
  </div>
  <div v-else-if="!project" class="page quiet" role="status">Laying out the boards …</div>
  <div v-else class="desk">
    <h1 class="said-only">{{ project.name }}</h1>
    <Teleport defer to="#header-acts">
      <v-btn
        :disabled="!project.undo"
        :title="project.undo ? `take back: ${project.undo}` : 'nothing to undo'"
        @click="desk.step('undo')"
        >Undo</v-btn
      >
      <v-btn
        :disabled="!project.redo"
        :title="project.redo ? `again: ${project.redo}` : 'nothing to redo'"
        @click="desk.step('redo')"
        >Redo</v-btn
      >
      <TakeAway :project="project" />
    </Teleport>
    <div class="sheet-pane">
      <div class="strip">
        <button type="button" class="settings" @click="settings = true">
          <span class="called">{{ project.yard?.name ?? 'No yard chosen' }}</span>
          <span class="quiet">
            kerf {{ project.kerf.shown.text }}, trim {{ project.trim_start.shown.text }} and
            {{ project.trim_end.shown.text }}, build {{ project.copies }}
          </span>
        </button>
        <v-btn size="small" @click="importing = true">Import</v-btn>
        <v-btn size="small" aria-label="Keys" @click="shortcuts = true">?</v-btn>
      </div>
      <div class="scroll" tabindex="-1">
        <PartSheet ref="sheet" :project="project" :plan="plan" :desk="desk" :lighting="lighting" />
      </div>
      <EntryLine ref="entry" :project="project" :desk="desk" />
    </div>
    <div class="boards-pane" tabindex="0" aria-label="Boards">
      <p v-if="plan?.stage === 'cut'" class="cut">
        <strong class="called">Cut.</strong> Offcuts worth keeping are on the rack; yard and rack no
        longer change this plan.
        <v-btn size="small" @click="desk.markCut('not-cut')">Not cut after all</v-btn>
      </p>
      <template v-if="plan">
        <AlreadyCut :cut="plan.already_cut" />
        <BoardPane :project="project" :plan="plan" :lighting="lighting" />
      </template>
      <p v-else-if="failed" role="alert">
        No plan could be made.
        <v-btn size="small" @click="desk.planAgain">Try again</v-btn>
      </p>
      <p v-else class="quiet" role="status">Laying out the boards …</p>
    </div>
    <div class="foot-bar">
      <p class="change" role="status">
        <template v-if="offline">
          <strong class="text-error">No connection.</strong> What you typed is kept and sent when it
          is back.
        </template>
        <template v-else-if="waiting">Saving …</template>
        <template v-else-if="project.change">
          {{ project.change
          }}<template v-if="effect"
            >: <strong>{{ effect }}</strong></template
          >
        </template>
      </p>
      <MarkCut v-if="plan" :plan="plan" :desk="desk" />
    </div>
    <TallyLine
      v-if="plan"
      class="foot"
      :plan="plan"
      :planning="planning"
      :outdated="outdated"
      :failed="failed"
      @stop="desk.stopPlanning"
      @again="desk.planAgain"
    />
    <SettingsDialog v-model="settings" :project="project" :desk="desk" />
    <ShortcutsDialog v-model="shortcuts" />
    <PartsImport v-model="importing" :project="project" :desk="desk" />
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: 430px minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr) auto auto;
  height: calc(100dvh - 56px);
}

.sheet-pane {
  grid-row: 1 / 3;
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: rgb(var(--v-theme-surface));
  border-right: 1px solid rgb(var(--v-theme-rule));
}

.strip {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 6px 12px 6px 8px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.settings {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  text-align: left;
  padding: 3px 8px;
  font-size: 0.8rem;
  cursor: pointer;
}

.settings:hover {
  background: rgb(var(--v-theme-selected));
}

.settings .called {
  font-size: 0.9rem;
}

.settings .quiet {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.scroll {
  flex: 1;
  overflow-y: auto;
  min-height: 0;
}

.boards-pane {
  overflow: auto;
  padding: 0 16px 0 18px;
  min-height: 0;
}

.cut {
  margin: 10px 0 0;
  padding: 6px 10px;
  border-left: 4px solid rgb(var(--v-theme-proven));
  font-size: 0.88rem;
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
  margin: 0;
  padding: 3px 0;
  font-size: 0.82rem;
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

  .scroll,
  .boards-pane {
    overflow: visible;
  }

  .boards-pane {
    padding: 0 8px;
    overflow-x: auto;
  }

  .foot {
    position: sticky;
    bottom: 0;
    z-index: 6;
  }
}
</style>
