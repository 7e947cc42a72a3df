import { beforeEach, describe, expect, it } from 'vitest'
import { serverThat } from '../testing/server'
import { askToSignIn, loadSession, session, signedIn, signingInAgain } from './session'

const tove = { username: 'tove', is_demo: false } as never

beforeEach(() => {
  session.value = undefined
  signingInAgain.value = false
})

describe('who is signed in', () => {
  it('is asked of the server', async () => {
    serverThat({ data: tove })
    expect((await loadSession())?.username).toBe('tove')
  })

  it('is whoever was, while there is no connection', async () => {
    session.value = tove
    serverThat('no connection')
    expect((await loadSession())?.username).toBe('tove')
  })
})

describe('a session that has ended', () => {
  it('lets everything that waits go on once somebody has signed in', async () => {
    const went: string[] = []
    const both = [
      askToSignIn().then(() => went.push('one')),
      askToSignIn().then(() => went.push('two')),
    ]
    expect(signingInAgain.value).toBe(true)
    signedIn(tove)
    await Promise.all(both)
    expect(went).toEqual(['one', 'two'])
    expect(signingInAgain.value).toBe(false)
    expect(session.value?.username).toBe('tove')
  })
})
