/** What the server is asked, and what it answers: the one way to it. */
export * from './client'
export * from './faults'
export * from './fields'
export * from './keys'
export * from './queries'
export * from './session'
export * from './shapes'
export * from './versioned'
