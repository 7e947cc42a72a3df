import { useQuery } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'
import { api, keys, type Plan, type Project, session } from '../api'
import { lastId, useOpenProject } from '../project'
import { counted } from '../shared'

/** Where a builder can stand: its name, a live word beneath, and whether that is here. */
export interface Place {
  label: string
  word: string
  to: string
  here: boolean
}

const OF_A_PROJECT = ['desk', 'list', 'trip', 'receipt', 'shop', 'days']

/** What is to be done at a yard, as the plan knows. */
function atTheYard(plan: Plan | undefined): string {
  if (plan?.stage === 'chosen') return 'under way'
  if (plan?.stage === 'bought') return 'bought'
  return plan?.stage === 'cut' ? 'all cut' : 'pick up'
}

/** What is to be bought, as the plan knows. */
function onTheList(plan: Plan | undefined): string {
  if (!plan) return 'to buy'
  return plan.stage === 'cut' ? 'all cut' : `${plan.tally.boards + plan.tally.spare} to buy`
}

/** What is to be done in the shop, as the plan knows. */
function inTheShop(plan: Plan | undefined): string {
  if (!plan) return 'cut'
  return plan.stage === 'cut' ? 'all cut' : counted(plan.tally.boards, 'board')
}

/** By when it is wanted, as far as that was typed. */
function wantedBy(project: Project | undefined): string {
  const [, year, month, day] = /^(\d{4})-(\d\d)-(\d\d)/.exec(project?.days_wanted ?? '') ?? []
  if (!year) return 'when'
  const wanted = new Date(Number(year), Number(month) - 1, Number(day))
  return `by ${wanted.toLocaleDateString('en-US', { month: 'short', day: 'numeric' })}`
}

/** The places of the project that is open, in the order of the work, and those of the workshop. */
export function usePlaces() {
  const route = useRoute()
  const { id, project, plan } = useOpenProject()
  const { data: held, refetch } = useQuery({
    queryKey: keys.workshop,
    enabled: computed(() => Boolean(session.value?.username)),
    queryFn: async () => (await api.GET('/api/workshop')).data ?? null,
  })
  watch(
    () => route.name,
    () => session.value?.username && refetch(),
  )

  function place(label: string, word: string, to: string, ...names: string[]): Place {
    return { label, word, to, here: names.includes(String(route.name)) }
  }

  const inProject = computed(() => OF_A_PROJECT.includes(String(route.name)))
  const ofProject = computed(() => {
    const at = `/projects/${id.value}`
    return [
      place(
        'Desk',
        project.value ? counted(project.value.parts.length, 'part') : 'plan',
        at,
        'desk',
      ),
      place('List', onTheList(plan.value), `${at}/list`, 'list'),
      place('Yard', atTheYard(plan.value), `${at}/yard`, 'trip', 'receipt'),
      place('Shop', inTheShop(plan.value), `${at}/shop`, 'shop'),
      place('Days', wantedBy(project.value), `${at}/days`, 'days'),
    ]
  })
  const ofWorkshop = computed(() => {
    const { projects = 0, yards = 0, boards = 0, materials = 0, tools = 0 } = held.value ?? {}
    return [
      place('Projects', `${projects} to build`, '/projects', 'projects'),
      place('Prices', counted(yards, 'yard'), '/yards', 'yards', 'yard'),
      place('Rack', counted(boards, 'board'), '/rack', 'rack'),
      place('Sizes', 'the book', '/sizes', 'sizes'),
      place('Materials', `${materials} of your own`, '/materials', 'materials'),
      place('Tools', counted(tools, 'tool'), '/tools', 'tools'),
    ]
  })
  /** The way back to the project that was open last. */
  const back = computed(() =>
    !inProject.value && lastId.value && project.value
      ? place('‹ Desk', project.value.name, `/projects/${lastId.value}`)
      : undefined,
  )
  const onTape = computed(() =>
    inProject.value ? ofProject.value : [...(back.value ? [back.value] : []), ...ofWorkshop.value],
  )

  return { inProject, onTape, ofWorkshop, project }
}
