import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { Styleguide } from '@/ui/styleguide/Styleguide'

export const metadata: Metadata = { title: 'Styleguide' }

/** Every piece of the interface on one page, while developing. */
export default function StyleguidePage() {
  if (process.env.NODE_ENV === 'production') notFound()
  return <Styleguide />
}
