const DAY: Intl.DateTimeFormatOptions = { day: 'numeric', month: 'short', year: 'numeric' }
const MOMENT = new Intl.DateTimeFormat('en', { ...DAY, hour: 'numeric', minute: '2-digit' })
const HERE = new Intl.DateTimeFormat('en', DAY)
const ANYWHERE = new Intl.DateTimeFormat('en', { ...DAY, timeZone: 'UTC' })
const A_DAY_ALONE = /^\d{4}-\d{2}-\d{2}$/

/** A day, such as *Nov 2, 2026*; a moment is told by its day here. */
export function day(told: string): string {
  return (A_DAY_ALONE.test(told) ? ANYWHERE : HERE).format(new Date(told))
}

/** A day and the time of it. */
export function dayAndTime(moment: string): string {
  return MOMENT.format(new Date(moment))
}
