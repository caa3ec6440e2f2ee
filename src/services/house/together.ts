import 'server-only'
import { write } from '@/db/house'

/** Several use cases as one: all of them are kept, or none. For imports and demo data. */
export function together<T>(work: () => Promise<T>): Promise<T> {
  return write(work)
}
