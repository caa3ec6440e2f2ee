'use client'

import { useSyncExternalStore } from 'react'

const never = () => () => undefined

/** False in what the server sends and true from then on: for what is only worth its time in the browser. */
export function useHydrated(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  )
}
