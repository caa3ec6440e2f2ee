/** What folding has to know of a step. */
type Placed = {
  phase: string
  heading: string
  /** "cylinder 2", or blank where it is about the whole. */
  where: string
  /** Names the head or cylinder that is worked through on its own before the next. */
  stretch?: string
}

/** Steps that are done at one place after the other: each list is one place's, all alike but for the place. */
export type FoldedSteps<Step> = { places: string[]; runs: Step[][] }

/**
 * Steps as somebody reads them who prepares the work: what is done alike at several cylinders is told
 * once, with the cylinders in the order in which they are done. Nothing changes its order: only runs that
 * follow each other are folded, and at the bench every step stays by itself.
 *
 * @param likeness of a step: everything that is told of it but its place
 * @example foldSteps([at(1), at(2), at(3)], ({ text }) => text) // one, at three places
 */
export function foldSteps<Step extends Placed>(
  steps: Step[],
  likeness: (step: Step) => string,
): FoldedSteps<Step>[] {
  const folded: (FoldedSteps<Step> & { alike: string })[] = []
  for (const run of runsOf(steps)) {
    const place = run.find(({ where }) => where !== '')?.where ?? ''
    const alike = JSON.stringify(run.map((step) => [step.phase, step.heading, likeness(step)]))
    const last = folded.at(-1)
    const joins = last?.alike === alike && place !== '' && !last.places.includes('')
    if (last && joins && !last.places.includes(place)) {
      last.places.push(place)
      last.runs.push(run)
    } else folded.push({ places: [place], runs: [run], alike })
  }
  return folded.map(({ places, runs }) => ({ places, runs }))
}

/** Steps in a row at one place: through all phases in a stretch of its own, else in one phase of one job. */
function runsOf<Step extends Placed>(steps: Step[]): Step[][] {
  const keyOf = (step: Step) =>
    step.stretch === undefined ? [step.where, step.phase, step.heading].join('\n') : step.stretch
  const runs: Step[][] = []
  for (const step of steps) {
    const last = runs.at(-1)
    // What is about the whole stands by itself: there is nothing to fold it with.
    const placed = step.where !== '' || step.stretch !== undefined
    if (last && placed && keyOf(last[0]!) === keyOf(step)) last.push(step)
    else runs.push([step])
  }
  return runs
}

/**
 * Places in words, in the order in which they come.
 * @example placesWords(['cylinder 1', 'cylinder 2', 'cylinder 3']) // 'cylinders 1, 2 and 3'
 * @example placesWords(['cylinder 3', 'cylinder 2']) // 'cylinder 3, then 2'
 */
export function placesWords(places: string[]): string {
  const parts = places.map((place) => /^(.+) (\d+)$/.exec(place))
  const nouns = new Set(parts.map((part) => part?.[1]))
  const [noun] = nouns
  if (places.length < 2 || nouns.size !== 1 || noun === undefined) return places.join(', then ')
  const numbers = parts.map((part) => Number(part![2]))
  return numbers.every((number, index) => index === 0 || number > numbers[index - 1]!)
    ? `${noun}s ${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`
    : `${noun} ${numbers.join(', then ')}`
}
