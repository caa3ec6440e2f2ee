import type { ReactNode } from 'react'

/** A part of a long form under its rule, with one line on what it is for. */
export function FormPart({ title, about, children }: { title: string; about?: string; children: ReactNode }) {
  return (
    <fieldset className="form-part">
      <header>
        <h2>{title}</h2>
        {about && <p className="second">{about}</p>}
      </header>
      {children}
    </fieldset>
  )
}
