import 'server-only'
import { notFound } from 'next/navigation'

/** What an address names, as it was before it was encoded; an address that cannot be read names nothing. */
export function referenceIn(encoded: string): string {
  try {
    return decodeURIComponent(encoded)
  } catch {
    notFound()
  }
}
