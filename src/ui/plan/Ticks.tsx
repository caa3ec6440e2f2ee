import './dayList.css'

export type Tick = { key: string; what: string; about: (string | false | undefined)[]; amount?: string }

/** Lines with a box to tick on paper. */
export function Ticks({ rows, nothing }: { rows: Tick[]; nothing?: string }) {
  if (rows.length === 0) return <p className="second">{nothing}</p>
  return (
    <ul className="line-list">
      {rows.map(({ key, what, about, amount }) => (
        <li key={key}>
          <span className="tick-box" aria-hidden="true" />
          <span className="grow">
            {what} <span className="second">{about.filter(Boolean).join(', ')}</span>
          </span>
          {amount && <span className="strong nowrap">{amount}</span>}
        </li>
      ))}
    </ul>
  )
}
