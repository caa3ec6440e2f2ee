'use client'

import { Link } from './Link'
import { usePathname } from 'next/navigation'
import { AtelierMark, SectionIcon, type Section } from '../graphics/SectionIcon'

export type RailSection = {
  section: Section
  label: string
  href: string
  count?: number
  countMeans?: string
}

type Props = {
  sections: RailSection[]
  company: string
  person: string
  role: string
  signOut: () => Promise<void>
}

/** The way through the application, in the order of the work; settings and the person at its foot. */
export function Rail({ sections, company, person, role, signOut }: Props) {
  const path = usePathname()
  return (
    <aside className="rail" aria-label="Atelier">
      <Link href="/" className="rail-mark">
        <AtelierMark />
        <span>Atelier</span>
      </Link>
      <nav className="rail-nav" aria-label="Sections">
        {sections.map(({ section, label, href, count, countMeans }) => (
          <Link
            key={section}
            href={href}
            className="rail-item"
            aria-current={path.startsWith(href) ? 'page' : undefined}
          >
            <SectionIcon section={section} />
            {label}
            {count ? (
              <span className="rail-count" title={countMeans}>
                {count}
                <span className="visually-hidden"> {countMeans}</span>
              </span>
            ) : null}
          </Link>
        ))}
      </nav>
      <div className="rail-foot">
        <span className="second">{company}</span>
        <span>{person}</span>
        <span className="second">{role}</span>
        <form action={signOut}>
          <button type="submit">Sign out</button>
        </form>
      </div>
    </aside>
  )
}
