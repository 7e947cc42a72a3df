import { vi } from 'vitest'

/** One request that was made. */
export interface Asked {
  method: string
  path: string
  body: Record<string, unknown>
  headers: Headers
}

type Reply = { status?: number; data?: unknown; headers?: Record<string, string> } | 'no connection'

/**
 * A server for tests: what it is asked, and what it answers, one after the other; the last answer is
 * given again. `no connection` fails as a lost connection does.
 */
export function serverThat(...replies: (Reply | ((asked: Asked) => Reply))[]) {
  const asked: Asked[] = []
  const left = [...replies]
  vi.stubGlobal(
    'fetch',
    vi.fn(async (request: Request) => {
      const text = request.method === 'GET' ? '' : await request.clone().text()
      const one = {
        method: request.method,
        path: new URL(request.url).pathname,
        body: text.startsWith('{') ? (JSON.parse(text) as Record<string, unknown>) : {},
        headers: request.headers,
      }
      asked.push(one)
      const next = left.length > 1 ? left.shift() : left[0]
      const reply = typeof next === 'function' ? next(one) : (next ?? 'no connection')
      if (reply === 'no connection') throw new TypeError('failed to fetch')
      const { status = 200, data = {}, headers = {} } = reply
      return new Response(status === 304 ? null : JSON.stringify(data), {
        status,
        headers: { 'Content-Type': 'application/json', ...headers },
      })
    }),
  )
  return asked
}
