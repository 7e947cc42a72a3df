import { v4 as newId } from 'uuid'
import { useQueryClient, type QueryKey } from '@tanstack/vue-query'
import { ref, type Ref } from 'vue'
import type { Outcome } from './client'
import { askToSignIn } from './session'

export interface Seen {
  version: number
  change_id: string
}

const RETRY_MS = 3000

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => {
    const wake = () => {
      clearTimeout(timer)
      window.removeEventListener('online', wake)
      resolve()
    }
    const timer = setTimeout(wake, ms)
    window.addEventListener('online', wake)
  })
}

/** What a change answers, as the newest state: `undefined` where that has to be asked for. */
export type Merge<T, A> = (known: T | undefined, answer: A) => T | undefined

/**
 * Changes of one thing that has a version. They are sent one after the other, each from the newest
 * state; a lost connection is waited out, a lost session is signed in to again, and the same change is
 * then sent once more under the same id, so that it is made once.
 */
export function useChanges<T extends { version: number }, A = T>(
  key: Ref<QueryKey>,
  merge: Merge<T, A> = (_, answer) => answer as unknown as T,
) {
  const queries = useQueryClient()
  const waiting = ref(0)
  const offline = ref(false)
  let tail: Promise<unknown> = Promise.resolve()

  async function send(ask: (seen: Seen) => Promise<Outcome<A, T>>): Promise<Outcome<A, T>> {
    const change_id = newId()
    for (;;) {
      const version = queries.getQueryData<T>(key.value)?.version ?? 0
      const outcome = await ask({ version, change_id })
      offline.value = outcome.kind === 'offline'
      if (outcome.kind === 'offline') await pause(RETRY_MS)
      else if (outcome.kind === 'signed-out') await askToSignIn()
      else {
        if (outcome.kind === 'done')
          await keep(merge(queries.getQueryData<T>(key.value), outcome.data))
        if (outcome.kind === 'conflict') await keep(outcome.current)
        return outcome
      }
    }
  }

  /** An answer that was asked for before this one may be older: it is not waited for any more. */
  async function keep(newest: T | undefined) {
    await queries.cancelQueries({ queryKey: key.value, exact: true })
    if (newest) queries.setQueryData(key.value, newest)
    else await queries.invalidateQueries({ queryKey: key.value, exact: true })
  }

  function change(ask: (seen: Seen) => Promise<Outcome<A, T>>): Promise<Outcome<A, T>> {
    waiting.value += 1
    const mine = tail.then(() => send(ask))
    tail = mine.finally(() => (waiting.value -= 1)).catch(() => undefined)
    return mine
  }

  return { change, waiting, offline }
}
