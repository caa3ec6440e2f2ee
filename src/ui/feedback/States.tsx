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
        <span key={index} className="loading-bar" style={{ width: `${92 - ((index * 17) % 40)}%` }} />
      ))}
    </div>
  )
}

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
    <div className={`note note-${tone}`} role={tone === 'oxide' ? 'alert' : undefined}>
      {title && <strong>{title} </strong>}
      {children}
    </div>
  )
}
