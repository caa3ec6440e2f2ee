'use client'

import { useRouter } from 'next/navigation'
import { useEffect, useTransition } from 'react'
import { mayLeave } from './unsaved'

/**
 * Follows the links of the application (`Link`) for the whole document. While a page is on its way a bar
 * says so; pages have no placeholder of their own, so that what does not exist can be answered with 404.
 */
export function Ways() {
  const router = useRouter()
  const [pending, startTransition] = useTransition()
  useEffect(() => {
    const follow = (event: MouseEvent) => {
      const link = (event.target as Element | null)?.closest?.<HTMLAnchorElement>('a[data-way]')
      const elsewhere = event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey || event.altKey
      if (!link || elsewhere || event.defaultPrevented || link.target || link.origin !== location.origin)
        return
      event.preventDefault()
      if (!mayLeave()) return
      startTransition(() => router.push(link.pathname + link.search + link.hash))
    }
    document.addEventListener('click', follow)
    return () => document.removeEventListener('click', follow)
  }, [router])
  if (!pending) return null
  return (
    <span className="on-its-way" role="status">
      <span className="visually-hidden">Loading the page</span>
    </span>
  )
}
