'use client'

import { Link } from '../frame/Link'
import type { ReactNode } from 'react'
import type { TodayRow } from '@/core/today'
import { PostMark, type PostMarkState } from '../graphics/PostMark'
import type { DecideActions } from '../plan'
import type { TodayActions } from './actions'

type Of<Kind extends TodayRow['kind']> = Extract<TodayRow, { kind: Kind }>
export type Shown<Kind extends TodayRow['kind']> = {
  row: Of<Kind>
  today: string
  /** Settles and records; null where whoever looks may not. */
  actions: TodayActions | null
  /** Decides visits; null where whoever looks may not. */
  plan: (DecideActions & { currency: string }) | null
  /** Who has it, and the ways to put it off or hand it on. */
  marks: ReactNode
}

type LineProps = {
  className: string
  mark: PostMarkState
  who: ReactNode
  what: ReactNode
  graphic?: ReactNode
  when: ReactNode
  action: ReactNode
}

/** The one grid that every kind of row stands in. */
export function Line({ className, mark, who, what, graphic, when, action }: LineProps) {
  return (
    <li className={`today-row ${className}`}>
      <PostMark state={mark} silent />
      <div>{who}</div>
      <div>{what}</div>
      <div className="row-graphic">{graphic}</div>
      <div className="row-when">{when}</div>
      <div className="row-action">{action}</div>
    </li>
  )
}

export function Machine({
  number,
  name,
  second,
}: {
  number: string | null
  name: string | null
  second: ReactNode
}) {
  return (
    <>
      {number ? (
        <Link href={`/fleet/${encodeURIComponent(number)}`} className="strong">
          {number}
        </Link>
      ) : (
        <span className="strong">Shelf</span>
      )}{' '}
      {name}
      <span className="second block">{second}</span>
    </>
  )
}

export const unique = (value: string, index: number, all: string[]) => all.indexOf(value) === index

export function listed(names: string[]): string {
  return names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ')
}
