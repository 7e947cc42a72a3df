/** So many of something, in words: *1 board*, *2 boards*. */
export function counted(count: number, one: string, several = `${one}s`): string {
  return `${count.toLocaleString('en')} ${count === 1 ? one : several}`
}
