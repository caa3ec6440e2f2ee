import { write } from '@/db/house'
import { yards } from '@/db/fleet'

/** Writes half of a use case, says so, and waits to be killed. */
void write(async () => {
  for (let index = 0; index < 200; index += 1) {
    await yards.insert({
      id: `half-${index}`,
      name: `half ${index}`,
      place: 'x'.repeat(100),
      note: '',
      createdAt: '',
      version: 1,
    })
  }
  process.stdout.write(`half written, pid ${process.pid}\n`)
  await new Promise((resolve) => setTimeout(resolve, 60_000))
})
