'use client'

import { createContext, use, type ReactNode } from 'react'
import type { DateOrder } from '@/core/calendar'

const Order = createContext<DateOrder>('dmy')

/** Says to every day field below in which order the company writes a day, whatever the browser's language. */
export function InDateOrder({ order, children }: { order: DateOrder; children: ReactNode }) {
  return <Order value={order}>{children}</Order>
}

export const useDateOrder = () => use(Order)
