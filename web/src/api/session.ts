import { ref } from 'vue'
import { api, type Session } from './client'

export const session = ref<Session>()
/** Whether a dialog asks to sign in again over the page, so that nothing on it is lost. */
export const signingInAgain = ref(false)
let waiting: (() => void)[] = []

let underWay: Promise<Session | undefined> | undefined

/** Who is signed in, asked once however many want to know. */
export function loadSession(): Promise<Session | undefined> {
  underWay ??= ask().finally(() => (underWay = undefined))
  return underWay
}

async function ask(): Promise<Session | undefined> {
  try {
    const { data } = await api.GET('/api/session')
    if (data) session.value = data
  } catch {
    // offline: whoever was signed in still is
  }
  return session.value
}

/** Resolves once somebody has signed in again. */
export function askToSignIn(): Promise<void> {
  signingInAgain.value = true
  return new Promise((resolve) => waiting.push(resolve))
}

export function signedIn(now: Session): void {
  session.value = now
  signingInAgain.value = false
  const resolved = waiting
  waiting = []
  for (const resolve of resolved) resolve()
}
