/** Whoever waits; from when on nothing holds it back any more, once only what goes ahead does. */
type Waiting = { begin: () => void; heldUntil: number | null }

/**
 * Who may begin when: so many at once, the others one after the other, and nobody while something goes ahead.
 * Neither can keep the others out for long: what goes ahead counts only for its first moments, since it may be
 * waiting for a slow sender, and whoever's turn has come is held back by it only so long.
 */
export class Turns {
  private readonly waiting: Waiting[] = []
  private underWay = 0

  /**
   * @param free how many may go on at once
   * @param heldMs how long what goes ahead holds others back, in milliseconds
   */
  constructor(
    private free: number,
    private readonly heldMs: number,
  ) {}

  /** Waits for a turn; answers with what ends it. */
  async take(): Promise<() => void> {
    await new Promise<void>((begin) => {
      this.waiting.push({ begin, heldUntil: null })
      this.next()
    })
    return once(() => {
      this.free += 1
      this.next()
    })
  }

  /** Runs what goes ahead of everybody who has not begun. */
  async ahead<T>(work: () => Promise<T>): Promise<T> {
    this.underWay += 1
    const end = once(() => {
      this.underWay -= 1
      this.next()
    })
    const timer = setTimeout(end, this.heldMs)
    timer.unref()
    try {
      return await work()
    } finally {
      clearTimeout(timer)
      end()
    }
  }

  private isHeld(first: Waiting): boolean {
    const now = performance.now()
    if (first.heldUntil === null) {
      first.heldUntil = now + this.heldMs
      setTimeout(() => this.next(), this.heldMs + 1).unref()
    }
    return now < first.heldUntil
  }

  private next(): void {
    while (this.free > 0) {
      const [first] = this.waiting
      if (!first || (this.underWay > 0 && this.isHeld(first))) return
      this.waiting.shift()
      this.free -= 1
      first.begin()
    }
  }
}

function once(work: () => void): () => void {
  let isDone = false
  return () => {
    if (isDone) return
    isDone = true
    work()
  }
}
