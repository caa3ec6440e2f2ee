'use client'

import NextLink, { useLinkStatus } from 'next/link'
import type { ComponentProps } from 'react'
import { mayLeave } from './unsaved'

/**
 * A link inside the application, not fetched ahead. Every page here is made for whoever asks: a list with
 * forty links would cost the server forty pages' beginnings on every visit, before anybody pressed one,
 * and the page somebody did press would wait behind them. While it is on its way a bar says so; pages
 * have no placeholder of their own, so that what does not exist can be answered with 404.
 */
export function Link({ children, ...props }: ComponentProps<typeof NextLink>) {
  return (
    <NextLink
      prefetch={false}
      onNavigate={(event) => {
        if (!mayLeave()) event.preventDefault()
      }}
      {...props}
    >
      {children}
      <OnItsWay />
    </NextLink>
  )
}

function OnItsWay() {
  const { pending } = useLinkStatus()
  if (!pending) return null
  return (
    <span className="on-its-way" role="status">
      <span className="visually-hidden">Loading the page</span>
    </span>
  )
}
