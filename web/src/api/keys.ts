import type { QueryKey } from '@tanstack/vue-query'

/** What is fetched, by name. A name that begins with another is looked at again along with it. */
export const keys = {
  projects: ['projects'],
  deletedProjects: ['projects', 'deleted'],
  anyProject: ['project'],
  project: (id: string) => ['project', id],
  anyPlan: ['plan'],
  plan: (project: string, version = 0) => ['plan', project, version],
  usualLengths: (project: string, version: number) => ['usual-lengths', project, version],
  compared: (project: string, version: number, yard: string) => [
    'compared',
    project,
    version,
    yard,
  ],
  drawing: (project: string, version: number, shape: string, room: object) => [
    'drawing',
    project,
    version,
    shape,
    room,
  ],
  yards: ['yards'],
  anyYard: ['yard'],
  yard: (id: string, ...page: (string | number)[]) => ['yard', id, ...page],
  pricesOf: (line?: string, price?: string) => ['prices', line, price],
  rack: ['rack'],
  boards: (...page: (string | number | undefined)[]) => ['rack', ...page],
  materials: ['materials'],
  workshop: ['workshop'],
  sizes: (name: string) => ['sizes', name],
  trip: (project: string) => ['trip', project],
  trips: (project: string) => ['trips', project],
  receipt: (trip: string) => ['receipt', trip],
} satisfies Record<string, QueryKey | ((...of: never[]) => QueryKey)>
