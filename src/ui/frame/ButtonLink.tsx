import type { ReactNode } from 'react'
import { Link } from './Link'

/** A link that looks like a button: styled as one in globals.css, under its name there. */
export function ButtonLink({
  href,
  children,
  filled = false,
  disabled = false,
  className = '',
}: {
  href: string
  children: ReactNode
  filled?: boolean
  disabled?: boolean
  className?: string
}) {
  const classes = `MuiButton-root button-link${filled ? ' MuiButton-contained' : ''} ${className}`.trim()
  if (disabled) return <span className={classes} role="link" aria-disabled="true" children={children} />
  return (
    <Link href={href} className={classes}>
      {children}
    </Link>
  )
}
