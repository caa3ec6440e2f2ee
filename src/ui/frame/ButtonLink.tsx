'use client'

import Button from '@mui/material/Button'
import { Link } from './Link'
import type { ReactNode } from 'react'

/** A link that looks like a button; server pages cannot hand a component to one themselves. */
export function ButtonLink({
  href,
  children,
  filled = false,
  disabled = false,
  className,
}: {
  href: string
  children: ReactNode
  filled?: boolean
  disabled?: boolean
  className?: string
}) {
  return (
    <Button
      component={Link}
      href={href}
      variant={filled ? 'contained' : 'outlined'}
      disabled={disabled}
      className={className}
    >
      {children}
    </Button>
  )
}
