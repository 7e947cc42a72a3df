import { flushPromises } from '@vue/test-utils'

/** Presses the button that says this, wherever it is on the page; fails where there is none. */
export async function press(called: string) {
  const buttons = [...document.querySelectorAll('button')]
  buttons.find((one) => one.textContent.trim() === called)!.click()
  await flushPromises()
}
