<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useProject } from '../desk/useProject'
import { useLighting } from '../desk/useLighting'
import LengthText from '../shared/LengthText.vue'
import NowherePage from '../shared/NowherePage.vue'
import SectionText from '../shared/SectionText.vue'
import AlreadyCut from '../shared/AlreadyCut.vue'
import TallyLine from '../shared/TallyLine.vue'
import CompareYards from './CompareYards.vue'
import GroupShares from './GroupShares.vue'
import HardwareDialog from './HardwareDialog.vue'
import HardwareTable from './HardwareTable.vue'
import MakeOrBuy from './MakeOrBuy.vue'
import TakeAway from './TakeAway.vue'
import TripsMade from './TripsMade.vue'

const route = useRoute()
const desk = useProject(String(route.params.id))
const { project, plan, outdated, failed, missing, isError, planning } = desk
const lighting = useLighting(String(route.params.id))
const fastening = ref(false)
const shopping = computed(() => plan.value?.shopping)
const parts = computed(() => new Map(project.value?.parts.map((p) => [p.id, p])))
const woods = computed(() => [...new Map(plan.value?.materials.map((m) => [m.wood, m])).values()])
const left = computed(() =>
  (plan.value?.materials ?? []).flatMap((material) => [
    ...material.unplaced.map((u) => ({ ...u, stock: material.stock, planned: true })),
    ...material.later.map((l) => ({
      ...l,
      stock: material.stock,
      quantity: parts.value.get(l.part)?.pieces ?? 0,
      planned: false,
    })),
  ]),
)
</script>

<template>
  <NowherePage v-if="missing" />
  <div v-else-if="isError && !project" class="page" role="alert">
    <h1>The list could not be loaded</h1>
    <v-btn @click="desk.refetch()">Try again</v-btn>
  </div>
  <div v-else-if="!plan && failed" class="page" role="alert">
    <h1>No plan could be made</h1>
    <v-btn @click="desk.planAgain">Try again</v-btn>
  </div>
  <div v-else-if="!project || !plan || !shopping" class="page quiet" role="status">Counting …</div>
  <div v-else class="whole">
    <Teleport defer to="#header-acts">
      <v-btn v-if="shopping.lines.length" :to="`/projects/${project.id}/yard`">To the yard</v-btn>
      <TakeAway :project="project" />
    </Teleport>
    <div class="page">
      <h1>What to buy</h1>
      <p class="quiet">
        {{
          project.yard ? `At ${project.yard.name}` : 'No yard chosen: standard lengths, no prices'
        }}
        for {{ project.copies > 1 ? `${project.copies} builds` : 'one build' }}.
      </p>
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
      <div v-else class="scroll" tabindex="0" role="region" aria-label="Shopping list">
        <table class="ruled">
          <thead>
            <tr>
              <th>stock</th>
              <th class="roomy">real size</th>
              <th>length</th>
              <th class="roomy">for</th>
              <th class="to-right">count</th>
              <th class="to-right">each</th>
              <th class="to-right">together</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="line in shopping.lines"
              :key="`${line.stock} ${line.named_length} ${line.spare}`"
              :class="{
                lit: lighting.lit.value && line.parts.includes(lighting.lit.value),
                spare: line.spare,
              }"
            >
              <td class="called">
                <span
                  class="swatch"
                  :style="{ background: `rgb(var(--v-theme-${line.kind}))` }"
                ></span
                >{{ line.stock }}
              </td>
              <td class="quiet roomy">
                <SectionText v-if="line.section" :section="line.section" />
              </td>
              <td>
                <span class="figure">{{ line.named_length }}</span>
                <span v-if="line.real_length" class="quiet real">
                  really <LengthText :length="line.real_length" />
                </span>
              </td>
              <td class="roomy">
                <span v-if="line.spare" class="quiet">spare, against culls</span>
                <button
                  v-for="part in line.parts"
                  :key="part"
                  type="button"
                  class="mark"
                  :class="{ on: lighting.lit.value === part }"
                  :aria-label="`${parts.get(part)?.mark} ${parts.get(part)?.called}: light it`"
                  :title="parts.get(part)?.called"
                  @pointerenter="lighting.hover(part)"
                  @pointerleave="lighting.hover()"
                  @focus="lighting.hover(part)"
                  @blur="lighting.hover()"
                  @click="lighting.select(part)"
                >
                  {{ parts.get(part)?.mark }}
                </button>
              </td>
              <td class="to-right figure count">{{ line.count }}</td>
              <td class="to-right each">
                <details v-if="line.how">
                  <summary>{{ line.price ?? 'no price' }}</summary>
                  <span class="quiet how">{{ line.how }}</span>
                </details>
                <template v-else>{{ line.price ?? 'no price' }}</template>
              </td>
              <td class="to-right figure">{{ line.line_price ?? 'no price' }}</td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td colspan="2"></td>
              <td colspan="2" class="roomy"></td>
              <td class="to-right figure count">
                {{ plan.tally.boards + plan.tally.spare }}
              </td>
              <td class="to-right">wood</td>
              <td class="to-right figure">{{ shopping.subtotal }}</td>
            </tr>
            <tr v-if="shopping.hardware.lines.length">
              <td colspan="2" class="roomy"></td>
              <td colspan="4" class="to-right">
                hardware{{ shopping.hardware.unpriced ? ', some without a price' : '' }}
              </td>
              <td class="to-right figure">{{ shopping.hardware.price }}</td>
            </tr>
            <tr>
              <td colspan="2" class="roomy"></td>
              <td colspan="4" class="to-right">
                tax {{ shopping.tax_rate }} %{{ shopping.tax_included ? ', included' : '' }}
              </td>
              <td class="to-right figure">{{ shopping.tax }}</td>
            </tr>
            <tr class="total">
              <td colspan="2" class="roomy"></td>
              <td colspan="4" class="to-right called">
                total{{ shopping.total_note ? `, ${shopping.total_note}` : '' }}
              </td>
              <td class="to-right figure">{{ shopping.total }}</td>
            </tr>
            <tr v-if="shopping.hardware.lines.length">
              <td colspan="2" class="roomy"></td>
              <td colspan="4" class="to-right">without hardware</td>
              <td class="to-right figure">{{ shopping.wood_total }}</td>
            </tr>
            <tr v-if="shopping.budget" :class="{ over: shopping.over_budget }">
              <td colspan="2" class="roomy"></td>
              <td colspan="5" class="to-right">{{ shopping.budget }}</td>
            </tr>
            <tr v-if="shopping.margin">
              <td colspan="2" class="roomy"></td>
              <td colspan="5" class="to-right">{{ shopping.margin }}</td>
            </tr>
            <tr v-if="shopping.copies > 1">
              <td colspan="2" class="roomy"></td>
              <td colspan="4" class="to-right">each of {{ shopping.copies }}</td>
              <td class="to-right figure">{{ shopping.per_copy }}</td>
            </tr>
          </tfoot>
        </table>
      </div>
      <AlreadyCut :cut="plan.already_cut" />
      <div class="under">
        <h2>Hardware</h2>
        <v-btn size="small" @click="fastening = true">Joints and hardware</v-btn>
      </div>
      <p v-if="!shopping.hardware.lines.length && !shopping.hardware.problems.length" class="quiet">
        No joints yet: say which parts meet and how, and the screws and bolts are counted.
      </p>
      <HardwareTable :hardware="shopping.hardware" />
      <p v-if="shopping.hardware.joints.length" class="quiet caution">
        Lengths go by common practice: two thirds into a face, but no more than 1½ times what is
        fastened; that into an edge or end; never through. What a joint bears is not checked.
      </p>
      <GroupShares :groups="shopping.groups" />
      <CompareYards :project="project" :plan="plan" />
      <MakeOrBuy :project="project" />
      <TripsMade :project="project.id" />
      <HardwareDialog v-model="fastening" :project="project" :desk="desk" />
      <template v-if="left.length">
        <h2>Not on this list</h2>
        <ul class="without">
          <li v-for="row in left" :key="row.part">
            <strong>{{ row.quantity }} × {{ parts.get(row.part)?.called }}</strong
            >, {{ row.stock }}: {{ row.reason }}{{ row.planned ? '' : ', not planned yet' }}
          </li>
        </ul>
      </template>
      <dl class="woods">
        <template v-for="wood in woods" :key="wood.wood">
          <dt>{{ wood.wood }}</dt>
          <dd v-if="wood.stands" class="quiet">May stand: {{ wood.stands }}. {{ wood.caution }}</dd>
          <dd v-else class="quiet">
            A wood that is not in the book: where it may stand, and what it weighs, is not known.
          </dd>
        </template>
      </dl>
      <p v-for="caution in plan.other_cautions" :key="caution" class="quiet caution">
        {{ caution }}
      </p>
    </div>
    <TallyLine
      class="foot"
      :plan="plan"
      :planning="planning"
      :outdated="outdated"
      :failed="failed"
      @stop="desk.stopPlanning"
      @again="desk.planAgain"
    />
  </div>
</template>

<style scoped>
.whole {
  min-height: calc(100dvh - 56px);
  display: flex;
  flex-direction: column;
}

.page {
  flex: 1;
  width: 100%;
}

.foot {
  position: sticky;
  bottom: 0;
}

.under {
  display: flex;
  align-items: baseline;
  gap: 18px;
  margin-top: 22px;
}

.scroll {
  overflow-x: auto;
  margin-top: 16px;
}

.swatch {
  display: inline-block;
  width: 13px;
  height: 13px;
  margin-right: 9px;
  border: 1px solid #17232a44;
  border-radius: 2px;
}

.real {
  margin-left: 8px;
  font-size: 0.84rem;
}

.mark {
  font-weight: 650;
  font-size: 0.84rem;
  min-width: 24px;
  min-height: 24px;
  padding: 0 5px;
  margin-right: 3px;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 2px;
}

.mark.on {
  border-color: rgb(var(--v-theme-primary));
  box-shadow: inset 0 0 0 1px rgb(var(--v-theme-primary));
}

.each {
  max-width: 180px;
}

.each summary {
  cursor: pointer;
  list-style: none;
  text-decoration: underline dotted;
  text-underline-offset: 4px;
}

.how {
  display: block;
  font-size: 0.84rem;
}

.lit {
  background: rgb(var(--v-theme-selected));
}

tr:not(.spare) + .spare td {
  border-top: 2px solid rgb(var(--v-theme-rule));
}

.spare .count {
  font-weight: 500;
}

.count {
  font-size: 1.1rem;
}

tfoot td {
  border-bottom: 0 !important;
  padding-bottom: 2px !important;
}

.total td {
  font-size: 1.15rem;
  border-top: 2px solid rgb(var(--v-theme-on-background));
}

.over td {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

.without {
  list-style: none;
  padding: 0 0 0 12px;
  border-left: 4px solid rgb(var(--v-theme-error));
}

@media (max-width: 600px) {
  .roomy {
    display: none;
  }

  .woods {
    grid-template-columns: 1fr;
  }
}

.woods {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 16px;
  margin: 28px 0 0;
  font-size: 0.84rem;
}

.woods dd {
  margin: 0;
}

.caution {
  margin-top: 12px !important;
  font-size: 0.84rem;
  max-width: 60em;
}

.nothing {
  padding: 40px 0;
}
</style>
