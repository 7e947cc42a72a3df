/** So many of something, in words: *1 board*, *2 boards*. */
export function counted(count: number, one: string, several = `${one}s`): string {
  // What knows how thousands are written takes its time to begin; few counts have any.
  const figure = count < 1000 ? String(count) : count.toLocaleString('en')
  return `${figure} ${count === 1 ? one : several}`
}
