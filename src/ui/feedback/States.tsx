import Alert from '@mui/material/Alert'
import Skeleton from '@mui/material/Skeleton'
import type { ReactNode } from 'react'

/** Nothing here yet: says what to do first. */
export function EmptyState({
  title,
  children,
  action,
}: {
  title: string
  children: ReactNode
  action?: ReactNode
}) {
  return (
    <div className="empty">
      <h2>{title}</h2>
      <p>{children}</p>
      {action}
    </div>
  )
}

/** Rows of plain bars in the shape of what is coming. */
export function LoadingState({ what, rows = 6 }: { what: string; rows?: number }) {
  return (
    <div className="loading" role="status" aria-label={`Loading ${what}`}>
      <p className="second">Loading {what} …</p>
      {Array.from({ length: rows }, (_, index) => (
        <Skeleton key={index} variant="rectangular" height={20} width={`${92 - ((index * 17) % 40)}%`} />
      ))}
    </div>
  )
}

const severities = { plain: 'info', oxide: 'error', brass: 'warning', moss: 'success' } as const

/** A sentence with a status beside it, in words and in shape. */
export function Note({
  tone = 'plain',
  title,
  children,
}: {
  tone?: 'plain' | 'oxide' | 'brass' | 'moss'
  title?: string
  children: ReactNode
}) {
  return (
    <Alert severity={severities[tone]} icon={false} role={tone === 'oxide' ? 'alert' : 'note'}>
      {title && <strong>{title} </strong>}
      {children}
    </Alert>
  )
}
