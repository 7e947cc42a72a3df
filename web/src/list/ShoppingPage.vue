<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useLighting } from '../drawing'
import { useProject } from '../project'
import { AlreadyCut, CautionList, ChangeLine, HeldPage, TallyLine } from '../shared'
import CompareYards from './CompareYards.vue'
import GroupShares from './GroupShares.vue'
import HardwareTable from './HardwareTable.vue'
import ListTable from './ListTable.vue'
import MakeOrBuy from './MakeOrBuy.vue'
import NotOnTheList from './NotOnTheList.vue'
import TakeAway from './TakeAway.vue'
import TripsMade from './TripsMade.vue'
import WhatItCost from './WhatItCost.vue'

const id = String(useRoute().params.id)
const desk = useProject(id)
const { plan, outdated, failed, planning } = desk
const lighting = useLighting(id)
const shopping = computed(() => plan.value?.shopping)
const woods = computed(() => [...new Map(plan.value?.materials.map((m) => [m.wood, m])).values()])
const anything = computed(() =>
  Boolean(shopping.value?.lines.length || shopping.value?.hardware.lines.length),
)
</script>

<template>
  <HeldPage v-slot="{ thing: project }" :held="desk" called="The list" fetching="Counting">
    <div v-if="!plan && failed" class="page" role="alert">
      <h1>No plan could be made</h1>
      <v-btn @click="desk.planAgain">Try again</v-btn>
    </div>
    <div v-else-if="!plan || !shopping" class="page quiet" role="status">Counting …</div>
    <div v-else class="whole">
      <Teleport defer to="#header-acts"><TakeAway :project="project" /></Teleport>
      <div class="page">
        <div class="top">
          <div>
            <h1>{{ plan.stage === 'cut' ? 'What it took' : 'What to buy' }}</h1>
            <p class="quiet">
              {{
                project.yard
                  ? `At ${project.yard.name}`
                  : 'No yard chosen: standard lengths, no prices'
              }}
              for {{ project.copies > 1 ? `${project.copies} builds` : 'one build' }}.
            </p>
          </div>
          <v-btn v-if="anything" :to="`/projects/${project.id}/yard`">To the yard</v-btn>
        </div>
        <ChangeLine :held="desk" :change="project.change" />
        <p v-if="!shopping.lines.length" class="nothing">
          <template v-if="plan.tally.owned"
            >No board to buy: all {{ plan.tally.owned }} are on
            <RouterLink to="/rack">your rack</RouterLink>.</template
          >
          <template v-else>
            Nothing to buy yet.
            <RouterLink :to="`/projects/${project.id}`">Add parts at the desk.</RouterLink>
          </template>
        </p>
        <ListTable v-else :project="project" :plan="plan" :lighting="lighting" />
        <AlreadyCut :cut="plan.already_cut" />
        <WhatItCost :project="project.id" :plan="plan" />
        <div class="under">
          <h2>Hardware</h2>
          <v-btn size="small" :to="`/projects/${project.id}?leaf=joints`"
            >Joints and hardware</v-btn
          >
        </div>
        <p
          v-if="!shopping.hardware.lines.length && !shopping.hardware.problems.length"
          class="quiet"
        >
          No joints yet: say which parts meet and how, and the screws and bolts are counted.
        </p>
        <HardwareTable :hardware="shopping.hardware" />
        <p v-if="shopping.hardware.joints.length" class="quiet caution">
          Lengths go by common practice: two thirds into a face, but no more than 1½ times what is
          fastened, nor than 1½ in for a screw; never through. What a joint bears is not checked.
        </p>
        <GroupShares :groups="shopping.groups" />
        <CompareYards :project="project" :plan="plan" />
        <MakeOrBuy :project="project" />
        <TripsMade :project="project.id" />
        <NotOnTheList :project="project" :plan="plan" />
        <dl class="woods">
          <template v-for="wood in woods" :key="wood.wood">
            <dt>{{ wood.wood }}</dt>
            <dd v-if="wood.stands" class="quiet">
              May stand: {{ wood.stands }}. {{ wood.caution }}
            </dd>
            <dd v-else class="quiet">
              A wood that is not in the book: where it may stand, and what it weighs, is not known.
            </dd>
          </template>
        </dl>
        <CautionList class="caution" :cautions="plan.other_cautions" />
      </div>
      <TallyLine
        class="foot"
        :plan="plan"
        :planning="planning"
        :outdated="outdated"
        :failed="failed"
        :yard="project.yard?.name"
        whole-list
        @stop="desk.stopPlanning"
        @again="desk.planAgain"
      />
    </div>
  </HeldPage>
</template>

<style scoped>
.whole {
  min-height: calc(100dvh - var(--head) - var(--foot));
  display: flex;
  flex-direction: column;
}

.page {
  flex: 1;
  width: 100%;
}

.foot {
  position: sticky;
  bottom: var(--foot);
  z-index: 6;
}

.under {
  display: flex;
  align-items: baseline;
  gap: 18px;
  margin-top: 22px;
}

.nothing {
  padding: 40px 0;
}

.woods {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 16px;
  margin: 28px 0 0;
  font-size: var(--text-small);
}

.woods dd {
  margin: 0;
}

.caution {
  margin-top: 12px !important;
  font-size: var(--text-small);
  max-width: 60em;
}

@media (max-width: 600px) {
  .woods {
    grid-template-columns: 1fr;
  }
}
</style>
