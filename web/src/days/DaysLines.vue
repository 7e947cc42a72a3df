<script setup lang="ts">
import { computed } from 'vue'
import type { Days, Project } from '../api'
import { type ProjectOnDesk, useTypedLines } from '../project'

/** Steps, what labels say and the weather, a line each. */
const props = defineProps<{ project: Project; days: Days; desk: ProjectOnDesk }>()
const unread = computed(() =>
  props.days.problems.map((problem) => {
    const [place = '', ...where] = problem.place.split(', ')
    return { place, message: [where.join(', '), problem.message].filter(Boolean).join(': ') }
  }),
)
const { bind, saving } = useTypedLines(() => props.project, props.desk, 'steps', unread)
</script>

<template>
  <div class="lines">
    <v-textarea
      v-bind="bind('steps')"
      label="Steps of your own, or otherwise than they are made, one a line"
      rows="3"
      hint="glue up the shelf panels, 20 min, then wait overnight · paint slats before closing, 2 coats · hang the lid, 20 min · deliver, 1 h · cut the parts, needs a helper"
    />
    <v-textarea
      v-bind="bind('products')"
      label="What the labels say, one product a line"
      rows="2"
      hint="cedar oil: 16 h between coats, slower when humid, least 50 °F · wood glue: clamps 30 min, full strength 12 h · fast oil: 6 h, instead of cedar oil · treated wood: dries 5 days"
    />
    <v-textarea
      v-bind="bind('weather')"
      label="The weather, for a day, a month or always"
      rows="2"
      hint="2027-06-09: 76 %, 68 °F, rain · june: 70 % · always: 55 %, 18 °C"
    />
    <p class="quiet" role="status">
      {{ saving ? 'Saving …' : 'Each field is saved as you leave it, or by Ctrl Enter.' }}
    </p>
  </div>
</template>

<style scoped>
.lines {
  display: grid;
  gap: 14px;
  max-width: 760px;
  padding: 12px 0 20px;
}

.lines p {
  margin: 0;
  font-size: var(--text-small);
}
</style>
