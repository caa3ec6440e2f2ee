import type { Person } from './browser'

/** The row of a machine as it reads now. */
export const line = (person: Person, number: string) =>
  person.page.$$eval(
    '.round-line',
    (rows, wanted) =>
      rows
        .map((row) => (row as HTMLElement).innerText.replaceAll('\u00a0', ' ').replace(/\s+/g, ' '))
        .find((text) => text.startsWith(wanted)) ?? '',
    number,
  )

/** Which machine's field has the focus. */
export const focused = (person: Person) =>
  person.page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '')

/** Waits until the row of a machine says these words. */
export async function lineSays(person: Person, number: string, words: string): Promise<void> {
  try {
    await person.page.waitForFunction(
      (wanted, says) =>
        [...document.querySelectorAll<HTMLElement>('.round-line')].some((row) => {
          const text = row.innerText.replaceAll('\u00a0', ' ').replace(/\s+/g, ' ')
          return text.startsWith(wanted) && text.includes(says)
        }),
      {},
      number,
      words,
    )
  } catch {
    throw new Error(`“${words}” never appeared. The row says: ${await line(person, number)}`)
  }
}

/** What the machine at hand is expected to show, from its row. */
export async function expected(person: Person, number: string): Promise<{ low: number; high: number }> {
  const says = await line(person, number)
  const found = says.match(/expect ([\d ]+\.?\d*) to ([\d ]+\.?\d*)/)
  if (!found) throw new Error(`${number} expects nothing: ${says}`)
  const [, low, high] = found
  return { low: Number(low!.replaceAll(' ', '')), high: Number(high!.replaceAll(' ', '')) }
}
