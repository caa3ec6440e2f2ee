import { createContext, useContext } from 'react'
import type { MoreWorkInput } from '@/core/sheets'

/** Adds work to the sheet at the bench; answers with the sentence that stands in the way, or null. */
export type AddWork = (input: Omit<MoreWorkInput, 'sheetId' | 'seenUpTo'>) => Promise<string | null>

export const MoreWorkContext = createContext<AddWork | null>(null)
export const useMoreWork = () => useContext(MoreWorkContext)
