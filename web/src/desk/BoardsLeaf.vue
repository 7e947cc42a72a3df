<script setup lang="ts">
import type { Plan, Project } from '../api'
import { BoardPane, type Lighting } from '../drawing'
import type { ProjectOnDesk } from '../project'
import { AlreadyCut } from '../shared'

/** The boards as they are cut, to scale. */
defineProps<{
  project: Project
  plan: Plan | undefined
  failed: boolean
  desk: ProjectOnDesk
  lighting: Lighting
}>()
</script>

<template>
  <div class="boards-pane" tabindex="0" role="region" aria-label="Boards">
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
</template>

<style scoped>
.boards-pane {
  flex: 1;
  overflow: auto;
  padding: 0 16px 0 18px;
  min-height: 0;
}

.cut {
  margin: 10px 0 0;
  padding: 6px 10px;
  border-left: 4px solid rgb(var(--v-theme-proven));
  font-size: var(--text-small);
}

@media (max-width: 900px) {
  .boards-pane {
    overflow: auto visible;
    padding: 0 8px;
  }
}
</style>
