'use client'

import NextLink from 'next/link'
import type { ComponentProps } from 'react'

/**
 * A link inside the application, not fetched ahead. Every page here is made for whoever asks: a list with
 * forty links would cost the server forty pages' beginnings on every visit, before anybody pressed one,
 * and the page somebody did press would wait behind them.
 */
export function Link(props: ComponentProps<typeof NextLink>) {
  return <NextLink prefetch={false} {...props} />
}
