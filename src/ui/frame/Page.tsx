import { Link } from './Link'
import type { ReactNode } from 'react'

type PageProps = {
  title: ReactNode
  summary?: ReactNode
  back?: { href: string; label: string }
  actions?: ReactNode
  children: ReactNode
}

/** One page: where it belongs, its title, one line that sums it up, its actions, its parts. */
export function Page({ title, summary, back, actions, children }: PageProps) {
  return (
    <main className="page" id="content">
      <div className="page-head">
        <div>
          {back && (
            <Link href={back.href} className="crumb">
              ← {back.label}
            </Link>
          )}
          <h1>{title}</h1>
          {summary && <p>{summary}</p>}
        </div>
        {actions && <div className="page-actions">{actions}</div>}
      </div>
      {children}
    </main>
  )
}

/** A part of a page under its rule, with a word on what it shows. */
export function Part({ title, aside, children }: { title: string; aside?: ReactNode; children: ReactNode }) {
  return (
    <section className="part">
      <header>
        <h2>{title}</h2>
        {aside && <span className="second">{aside}</span>}
      </header>
      {children}
    </section>
  )
}

/** Names and values; what is not known is left out rather than shown as a dash. */
export function Facts({ facts }: { facts: [string, ReactNode][] }) {
  return (
    <dl className="facts">
      {facts
        .filter(([, value]) => value !== null && value !== undefined && value !== '' && value !== false)
        .map(([name, value]) => [<dt key={`${name}-name`}>{name}</dt>, <dd key={name}>{value}</dd>])}
    </dl>
  )
}
