'use client'

import { useEffect, useState, type ReactNode } from 'react'
import { flushSync } from 'react-dom'

/**
 * What is only for paper, drawn when the page is about to be printed and not before: beside a page that
 * changes with every tap it would be drawn each time for nobody.
 */
export function OnPaper({ children }: { children: () => ReactNode }) {
  const [isPrinting, setIsPrinting] = useState(false)
  useEffect(() => {
    // The browser takes the page as it stands when this returns.
    const begin = () => flushSync(() => setIsPrinting(true))
    const end = () => setIsPrinting(false)
    window.addEventListener('beforeprint', begin)
    window.addEventListener('afterprint', end)
    return () => {
      window.removeEventListener('beforeprint', begin)
      window.removeEventListener('afterprint', end)
    }
  }, [])
  return isPrinting && children()
}
