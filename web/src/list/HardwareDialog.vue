<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Project } from '../api/client'
import { useFaults } from '../api/faults'
import FormDialog from '../shared/FormDialog.vue'
import type { ProjectOnDesk } from '../desk/useProject'
import UsualLengths from './UsualLengths.vue'

const props = defineProps<{ project: Project; desk: ProjectOnDesk }>()
const open = defineModel<boolean>({ required: true })
const form = ref({ joints: '', hardware: '', finishes: '', rules: '' })
const faults = useFaults('joints')
const busy = ref(false)
const unread = ref(false)

watch(
  open,
  (now) => {
    if (!now) return
    const { joints, hardware, finishes, rules } = props.project
    form.value = { joints, hardware, finishes, rules }
    faults.clear()
    unread.value = false
  },
  { immediate: true },
)

async function save() {
  busy.value = true
  const outcome = await props.desk.changeSettings(form.value)
  const plan = outcome.kind === 'done' ? await props.desk.settled() : undefined
  busy.value = false
  if (!faults.settle(outcome) || !plan) return
  faults.problems.value = plan.shopping.hardware.problems.map((problem) => {
    const [place = '', ...where] = problem.split(', ')
    return { place, message: where.join(', ') }
  })
  unread.value = faults.problems.value.length > 0
  open.value = unread.value
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="What holds and covers it"
    :width="640"
    :busy="busy"
    :dismiss="unread ? 'Close' : undefined"
    @save="save"
  >
    <p v-if="unread" role="alert" class="text-error">
      All of it is kept. Lines that cannot be read are left out of the list and of every total until
      they are mended.
    </p>
    <div class="form">
      <v-textarea
        v-model="form.joints"
        label="Joints, one a line"
        rows="6"
        auto-grow
        hint="8 B to A edge, 2 screws · 4 C to D, 1 carriage bolt, load · 6 E to F, 2 screws, recessed"
        persistent-hint
        :error-messages="faults.at('joints')"
      />
      <p class="quiet small">
        How many joints, the marks of the parts from the head on, and what holds each: screws,
        structural, lag or pocket screws, nails, brads, bolts, carriage bolts, dowels, biscuits,
        splines or glue, with a gauge where it matters (two #8 deck screws, 16d). Into an edge or an
        end say so. The length is chosen from what is passed; write one, such as 3in, to take yours.
      </p>
      <UsualLengths :project="project" />
      <v-textarea
        v-model="form.hardware"
        label="Other things to buy, one a line"
        rows="4"
        auto-grow
        hint="2 strap hinge @ 6.50 · have 40 screw 2 1/2in"
        persistent-hint
        :error-messages="faults.at('hardware')"
      />
      <v-textarea
        v-model="form.finishes"
        label="Finishes and glue, one a line"
        rows="2"
        auto-grow
        hint="oil on B D E, 2 coats, 12 m2/l, 10 % loss · stain on all faces and edges, 1 coat, 300 sq ft/gal · resin + hardener 2:1 on joints, 1 coat, 5 m2/l"
        persistent-hint
        :error-messages="faults.at('finishes')"
      />
      <p class="quiet small">
        The can’s label says how far it goes. Name faces, one face, edges or ends where not all
        sides are coated; <em>on joints</em> is where glued joints meet (write glued beside screws).
        Two components are mixed by volume.
      </p>
      <v-textarea
        v-model="form.rules"
        label="Rules of thumb of your own, one a line"
        :rows="project.usual_rules.length"
        auto-grow
        :placeholder="project.usual_rules.join('\n')"
        persistent-placeholder
        hint="only those that differ; the grey ones are common practice"
        persistent-hint
        :error-messages="faults.at('rules')"
      />
    </div>
  </FormDialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
  padding-top: 4px;
}

.small {
  font-size: 0.84rem;
  margin: 0 0 6px;
}
</style>
