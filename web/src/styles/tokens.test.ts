import { describe, expect, it } from 'vitest'

const sources = import.meta.glob<string>(['../**/*.vue', './base.css', './library.css'], {
  query: '?raw',
  import: 'default',
  eager: true,
})
const tokens = import.meta.glob<string>('./tokens.css', {
  query: '?raw',
  import: 'default',
  eager: true,
})['./tokens.css']
const MOST_LINES = 300
const files = Object.entries(sources)

/** The lines of a file's styles that a pattern finds. */
function found(pattern: RegExp): string[] {
  return files.flatMap(([name, source]) => {
    const style = name.endsWith('.css') ? source : source.slice(source.indexOf('<style'))
    const lines = style.split('\n').filter((line) => pattern.test(line))
    return lines.map((line) => `${name}: ${line.trim()}`)
  })
}

describe('the look of every component', () => {
  it('is all there', () => expect(files.length).toBeGreaterThan(60))

  it('has no colour but the theme’s', () => {
    expect(found(/#[0-9a-f]{3,8}\b|\brgba?\(\s*\d|\bhsla?\(/i)).toEqual([])
  })

  it('has its type in the sizes of the scale', () => {
    expect(found(/font-size:(?!\s*(var\(--(text|drawn|far)|inherit))/)).toEqual([])
  })

  it('throws no shadow', () => {
    expect(found(/box-shadow:(?!\s*(none|inset))/)).toEqual([])
  })

  it('uses only what there is', () => {
    const known = new Set([...(tokens ?? '').matchAll(/(--[\w-]+):/g)].map((one) => one[1]))
    const used = found(/var\(--(text|drawn|far|corner|heavy|head|foot|touch|cell|row|over)/)
      .flatMap((line) => [...line.matchAll(/var\((--[\w-]+)/g)].map((one) => one[1]))
      .filter((name) => !name?.startsWith('--v-'))
    expect(used.filter((name) => name !== '--under' && !known.has(name))).toEqual([])
  })

  it('is in files that can be read at one sitting', () => {
    const long = files.filter(([, source]) => source.split('\n').length > MOST_LINES)
    expect(long.map(([name]) => name)).toEqual([])
  })
})

describe('every dialog', () => {
  it('has a name', () => {
    const unnamed = files.flatMap(([name, source]) =>
      [...source.matchAll(/<v-dialog[\s\S]*?>/g)]
        .filter(([tag]) => !/aria-label/.test(tag))
        .map(() => name),
    )
    expect(unnamed).toEqual([])
  })
})
