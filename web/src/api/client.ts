import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Project = Schemas['ProjectOut']
export type ProjectRow = Schemas['ProjectRowOut']
export type ProjectChange = Schemas['ProjectChangedOut']
export type Part = Schemas['PartOut']
export type Plan = Schemas['PlanOut']
export type Material = Schemas['MaterialOut']
export type Layout = Schemas['LayoutOut']
export type Hardware = Schemas['HardwareOut']
export type Length = Schemas['LengthOut']
export type Section = Schemas['SectionOut']
export type Reading = Schemas['ReadingOut']
export type Yard = Schemas['YardOut']
export type YardRow = Schemas['YardRowOut']
export type PriceLine = Schemas['PriceLineOut']
export type AskedYard = Schemas['AskedOut']
export type Quote = Schemas['QuoteIn']
export type PricesReading = Schemas['PricesReadingOut']
export type Rack = Schemas['RackOut']
export type RackBoard = Schemas['RackBoardOut']
export type Effect = Schemas['EffectOut']
export type RackFields = Omit<Schemas['RackBoardIn'], 'version' | 'change_id'>
export type Materials = Schemas['MaterialsOut']
export type OwnMaterial = Schemas['OwnMaterialOut']
export type MaterialFields = Omit<Schemas['OwnMaterialIn'], 'version' | 'change_id'>
export type BookSize = Schemas['BookSizeOut']
export type WayToSize = Schemas['WayOut']
export type TableColumn = Schemas['ColumnOut']
export type Problem = Schemas['ProblemOut']
export type Session = Schemas['SessionOut']
export type Trip = Schemas['TripOut']
export type TripLine = Schemas['TripLineOut']
export type TripEvent = Schemas['EventIn']
export type Receipt = Schemas['ReceiptOut']
export type Cutting = Schemas['CuttingOut']
export type BenchEvent = Schemas['BenchEventIn']
export type Card = Schemas['CardOut']
export type CardCut = Schemas['CardCutOut']
export type Days = Schemas['DaysOut']
export type DayStep = Schemas['StepOut']
export type StepEvent = Schemas['StepEventIn']
export type Toolbox = Schemas['ToolboxOut']
export type OwnedTool = Schemas['OwnedToolOut']
export type ToolKind = Schemas['ToolKindOut']
export type ToolChange = Omit<Schemas['ToolIn'], 'version' | 'change_id'>
export type PartField = Exclude<keyof Schemas['PartPatchIn'], 'version' | 'change_id'>
export type Measure = Schemas['MeasureOut']
export type MeasureReading = Schemas['MeasureReadingOut']
export type Value = Schemas['ValueOut']
export type Run = Schemas['RunOut']
export type Laid = Schemas['LaidOut']
export type Shape = Schemas['ShapeOut']
export type Drawing = Schemas['DrawingOut']
export type DrawnView = Schemas['DrawnOut']
export type ShapePreview = Schemas['ShapePreviewOut']
export type MeasureField = Exclude<keyof Schemas['MeasurePatchIn'], 'version' | 'change_id'>
export type RunFields = Omit<Schemas['RunIn'], 'version' | 'change_id'>
export type RunPatch = Omit<Schemas['RunPatchIn'], 'version' | 'change_id'>
export type RunField = keyof RunPatch
export type ProjectPatch = Omit<Schemas['ProjectPatchIn'], 'version' | 'change_id'>
export type YardPatch = Omit<Schemas['YardPatchIn'], 'version' | 'change_id'>
export type PriceFields = Omit<Schemas['PriceLineIn'], 'version' | 'change_id'>

function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

export const api = createClient<paths>({
  credentials: 'same-origin',
  fetch: (request) => fetch(request),
})
api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
})

/** What came of asking the server for a change. */
export type Outcome<T, Current = T> =
  | { kind: 'done'; data: T }
  | { kind: 'refused'; detail: string; problems: Problem[] }
  | { kind: 'conflict'; detail: string; current: Current }
  | { kind: 'signed-out' }
  | { kind: 'offline' }

type Answer<T> = { data?: T; error?: unknown; response: Response }

/** The outcome of a request; a lost connection is an outcome, too. */
export async function outcomeOf<T, Current = T>(
  request: Promise<Answer<unknown>>,
): Promise<Outcome<T, Current>> {
  let answer: Answer<unknown>
  try {
    answer = await request
  } catch {
    return { kind: 'offline' }
  }
  const { data, error, response } = answer
  if (response.ok) return { kind: 'done', data: data as T }
  if (response.status === 401) return { kind: 'signed-out' }
  if (response.status === 403) return { kind: 'signed-out' }
  if (response.status === 409) {
    const conflict = error as { detail: string; current: Current }
    return { kind: 'conflict', detail: conflict.detail, current: conflict.current }
  }
  if (response.status >= 500) return { kind: 'offline' }
  const fault = error as { detail?: string; problems?: Problem[] } | undefined
  return {
    kind: 'refused',
    detail: fault?.detail ?? 'the server refused that',
    problems: fault?.problems ?? [],
  }
}

/** A file and plain fields as a form, for openapi-fetch. */
export function formOf(fields: Record<string, string | Blob | null | undefined>): FormData {
  const form = new FormData()
  for (const [name, value] of Object.entries(fields)) if (value) form.append(name, value)
  return form
}
