<script setup lang="ts">
import { computed } from 'vue'
import type { Plan, Project } from '../api'
import { type ProjectOnDesk, useTypedLines } from '../project'
import UsualLengths from './UsualLengths.vue'

/** What holds and covers it: joints, other things, finishes and rules, a line each. A field is saved
 * when it is left; what could not be saved is kept here. */
const props = defineProps<{ project: Project; plan: Plan | undefined; desk: ProjectOnDesk }>()
/** Lines that are kept and cannot be read, by their field. */
const unread = computed(() =>
  (props.plan?.shopping.hardware.problems ?? []).map((problem) => {
    const [place = '', ...where] = problem.split(', ')
    return { place, message: where.join(', ') }
  }),
)

const { bind, saving } = useTypedLines(() => props.project, props.desk, 'joints', unread)
</script>

<template>
  <div class="joints">
    <p v-if="unread.length" role="alert" class="text-error">
      All of it is kept. Lines that cannot be read are left out of the list and of every total until
      they are mended.
    </p>
    <v-textarea
      v-bind="bind('joints')"
      label="Joints, one a line"
      rows="4"
      hint="8 B to A edge, 2 screws · 4 C to D, 1 carriage bolt, load · 6 E to F, 2 screws, recessed"
    />
    <details class="quiet">
      <summary>How a joint is written</summary>
      How many joints, the marks of the parts from the head on, and what holds each: screws,
      structural, lag or pocket screws, nails, brads, staples, bolts, carriage bolts, dowels,
      biscuits, splines or glue, with a gauge where it matters (two #8 deck screws, 16d). Into an
      edge or an end say so; beside it may stand recessed 1 1/2, countersunk, toe-screwed, through
      the miter, rabbet 3/8, half lap, glued. The length is chosen from what is passed; write one,
      such as 3in, to take yours. Any figure may follow measures:
      <em>=(2 * bays) B to A, 2 screws</em>.
    </details>
    <UsualLengths :project="project" />
    <v-textarea
      v-bind="bind('work')"
      label="Work on parts, one a line"
      rows="2"
      hint="grooves, rabbets, laps, as shapes write them; kept as lines, set-ups come later"
    />
    <v-textarea
      v-bind="bind('hardware')"
      label="Other things to buy, one a line"
      rows="2"
      hint="2 strap hinge @ 6.50 · have 40 screw 2 1/2in"
    />
    <v-textarea
      v-bind="bind('finishes')"
      label="Finishes and glue, one a line"
      rows="2"
      hint="oil on B D E, 2 coats, 12 m2/l, 10 % loss · stain on all faces and edges, 1 coat, 300 sq ft/gal · resin + hardener 2:1 on joints, 1 coat, 5 m2/l"
    />
    <details class="quiet">
      <summary>How a finish is written</summary>
      The can’s label says how far it goes; where nothing is written, what is usual for it is taken.
      Name faces, one face, edges or ends where not all sides are coated; <em>on joints</em> is
      where glued joints meet (write glued beside screws). Two components are mixed by volume. After
      the coats may stand sanded at 80, not sanded or before closing. Finishes on one surface go on
      in the order of their lines.
    </details>
    <v-textarea
      v-bind="bind('rules')"
      label="Rules of thumb of your own, one a line"
      :rows="project.usual_rules.length"
      :placeholder="project.usual_rules.join('\n')"
      persistent-placeholder
      hint="only those that differ; the grey ones are common practice"
    />
    <p class="quiet" role="status">
      {{ saving ? 'Saving …' : 'Each field is saved as you leave it, or by Ctrl Enter.' }}
    </p>
  </div>
</template>

<style scoped>
.joints {
  display: grid;
  gap: 12px;
  padding: 14px 18px 24px;
}

.joints p {
  margin: 0;
  font-size: var(--text-small);
}

details {
  font-size: var(--text-small);
}

summary {
  cursor: pointer;
}
</style>
