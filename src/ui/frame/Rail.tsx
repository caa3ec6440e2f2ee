'use client'

import { Link } from './Link'
import MoreHoriz from '@mui/icons-material/MoreHoriz'
import dynamic from 'next/dynamic'
import { usePathname } from 'next/navigation'
import { useState } from 'react'
import { AtelierMark, SectionIcon } from '../graphics/SectionIcon'
import type { RailSection } from './railSection'

const MoreMenu = dynamic(() => import('./MoreMenu'), { ssr: false })

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
  const [more, setMore] = useState<HTMLElement | null>(null)
  const folded = sections.filter((each) => each.folded)
  const inFolded = folded.some(({ href }) => path.startsWith(href))
  return (
    <aside className="rail" aria-label="Atelier">
      <Link href="/" className="rail-mark">
        <AtelierMark />
        <span>Atelier</span>
      </Link>
      <nav className="rail-nav" aria-label="Sections">
        {sections.map(({ section, label, href, count, countMeans, folded: hidden }) => (
          <Link
            key={section}
            href={href}
            className={hidden ? 'rail-item folded' : 'rail-item'}
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
        <button
          type="button"
          className="rail-item rail-more"
          aria-haspopup="menu"
          aria-expanded={more !== null}
          aria-current={inFolded ? 'true' : undefined}
          onClick={(event) => setMore(event.currentTarget)}
        >
          <MoreHoriz />
          More
        </button>
      </nav>
      {more && (
        <MoreMenu
          anchor={more}
          sections={folded}
          company={company}
          person={person}
          role={role}
          signOut={signOut}
          onClose={() => setMore(null)}
        />
      )}
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
