import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { session, signingInAgain } from '../api'
import { press } from '../testing/press'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import AccountPage from './AccountPage.vue'
import SignInAgain from './SignInAgain.vue'
import SignInPage from './SignInPage.vue'

const MIRA = { username: 'mira', is_demo: false, demo_available: true }
const refused = (place: string, message: string) => ({
  status: 422,
  data: { detail: '', problems: [{ place, message }] },
})

beforeEach(() => {
  session.value = undefined
  signingInAgain.value = false
})

async function type(at: number, text: string) {
  const field = document.querySelectorAll<HTMLInputElement>('input')[at]!
  field.value = text
  field.dispatchEvent(new Event('input'))
  await flushPromises()
}

describe('the way in', () => {
  it('signs in with a name and a password', async () => {
    const asked = serverThat({ data: MIRA })
    const page = shown(SignInPage)
    await type(0, 'mira')
    await type(1, 'long-enough-7')
    await page.get('form').trigger('submit')
    await flushPromises()
    expect(asked[0]).toMatchObject({
      ...{ method: 'POST', path: '/api/session' },
      body: { username: 'mira', password: 'long-enough-7' },
    })
    expect(session.value?.username).toBe('mira')
  })

  it('keeps what was typed where it is refused', async () => {
    serverThat(refused('password', 'no such name and password'))
    const page = shown(SignInPage)
    await type(0, 'mira')
    await page.get('form').trigger('submit')
    await flushPromises()
    expect(page.text()).toContain('no such name and password')
    expect(page.get<HTMLInputElement>('input').element.value).toBe('mira')
    expect(session.value).toBeUndefined()
  })

  it('makes an account instead', async () => {
    const asked = serverThat({ data: MIRA })
    const page = shown(SignInPage)
    await press('Make an account instead')
    await page.get('form').trigger('submit')
    await flushPromises()
    expect(asked[0]?.path).toBe('/api/account')
  })

  it('leads into the demo workshop, or says that it does not answer', async () => {
    session.value = { username: '', is_demo: false, demo_available: true }
    serverThat('no connection', { data: { ...MIRA, username: 'quarry-lane', is_demo: true } })
    const page = shown(SignInPage)
    await press('Enter the demo workshop')
    expect(page.text()).toContain('does not answer')
    await press('Enter the demo workshop')
    expect(session.value?.is_demo).toBe(true)
  })
})

describe('a session that ended', () => {
  it('is signed in to again over the page, as who was there', async () => {
    session.value = MIRA
    signingInAgain.value = true
    const asked = serverThat({ data: MIRA })
    shown(SignInAgain)
    await flushPromises()
    expect(document.body.textContent).toContain('What you typed is still here')
    expect(document.querySelector<HTMLInputElement>('input')?.value).toBe('mira')
    await type(1, 'long-enough-7')
    document.querySelector('form')!.dispatchEvent(new Event('submit'))
    await flushPromises()
    expect(asked[0]?.path).toBe('/api/session')
    expect(signingInAgain.value).toBe(false)
  })
})

describe('the account', () => {
  it('changes its password, and says so', async () => {
    session.value = MIRA
    const asked = serverThat(refused('old', 'that is not it'), { data: MIRA })
    const page = shown(AccountPage)
    await type(0, 'wrong')
    await type(1, 'longer-than-7')
    await press('Change the password')
    expect(page.text()).toContain('that is not it')
    await press('Change the password')
    expect(asked[1]?.body).toEqual({ old: 'wrong', new: 'longer-than-7' })
    expect(page.text()).toContain('The password is changed.')
    expect(page.get<HTMLInputElement>('input').element.value).toBe('')
  })

  it('is deleted only with its password', async () => {
    session.value = MIRA
    const asked = serverThat(refused('password', 'that is not your password'))
    const page = shown(AccountPage)
    await type(2, 'wrong')
    await press('Delete everything')
    expect(asked[0]).toMatchObject({ path: '/api/account/delete', body: { password: 'wrong' } })
    expect(page.text()).toContain('that is not your password')
    expect(session.value?.username).toBe('mira')
  })

  it('of the demo workshop can neither be changed nor deleted', () => {
    session.value = { ...MIRA, is_demo: true }
    const page = shown(AccountPage)
    expect(page.text()).toContain('Everybody who comes here shares it')
    expect(page.find('form').exists()).toBe(false)
    expect(page.get('a').attributes('href')).toBe('/api/account/export.json')
  })
})
