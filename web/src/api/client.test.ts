import { describe, expect, it } from 'vitest'
import { serverThat } from '../testing/server'
import { api, formOf, outcomeOf } from './client'

function ask() {
  return outcomeOf(
    api.POST('/api/projects', { body: { id: '', name: 'Gate', unit: 'in', yard: null } }),
  )
}

describe('what comes of a request', () => {
  it('is what the server answers', async () => {
    serverThat({ data: { name: 'Gate' } })
    expect(await ask()).toEqual({ kind: 'done', data: { name: 'Gate' } })
  })

  it('is that there is no connection', async () => {
    serverThat('no connection')
    expect(await ask()).toEqual({ kind: 'offline' })
  })

  it.each([500, 502, 503])('is the same where the server fails with %i', async (status) => {
    serverThat({ status, data: {} })
    expect(await ask()).toEqual({ kind: 'offline' })
  })

  it.each([401, 403])('is that nobody is signed in, with %i', async (status) => {
    serverThat({ status, data: { detail: 'who?' } })
    expect(await ask()).toEqual({ kind: 'signed-out' })
  })

  it('is both states where somebody else was first', async () => {
    serverThat({ status: 409, data: { detail: 'changed', current: { version: 7 } } })
    expect(await ask()).toEqual({ kind: 'conflict', detail: 'changed', current: { version: 7 } })
  })

  it('is each thing that is wrong', async () => {
    const problems = [{ place: 'name', message: 'a name is missing' }]
    serverThat({ status: 422, data: { detail: 'no', problems } })
    expect(await ask()).toEqual({ kind: 'refused', detail: 'no', problems })
  })

  it('is a refusal in plain words where the server gives none', async () => {
    serverThat({ status: 404, data: {} })
    expect(await ask()).toEqual({
      kind: 'refused',
      detail: 'the server refused that',
      problems: [],
    })
  })
})

describe('a request', () => {
  it('carries the token that it is ours, unless it only reads', async () => {
    document.cookie = 'csrftoken=abc123'
    const asked = serverThat({ data: {} })
    await ask()
    await api.GET('/api/yards')
    expect(asked.map((one) => one.headers.get('X-CSRFToken'))).toEqual(['abc123', null])
  })
})

describe('a form', () => {
  it('holds texts and files', () => {
    const file = new File(['a,b'], 'parts.csv')
    const form = formOf({ id: '1', file })
    expect(form.get('id')).toBe('1')
    expect((form.get('file') as File).name).toBe('parts.csv')
  })
})
