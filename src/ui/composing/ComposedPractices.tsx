import { Link } from '../frame/Link'
import type { UsedPractice } from '@/core/composing'
import { choiceName, practiceOf } from '@/core/practices'

const froms = {
  manual: 'the manual says so',
  model: 'ours for this model',
  company: 'ours',
  default: 'default',
} as const

/** What the company chose or the manual says, where it changes this sheet; and where a choice is overruled. */
export function ComposedPractices({ practices }: { practices: UsedPractice[] }) {
  if (practices.length === 0) return <p className="second">None of the practices touches this work.</p>
  return (
    <>
      <ul className="line-list" aria-label="Practices">
        {practices.map(({ key, choice, from, because, overruled }) => (
          <li key={key}>
            <span className="grow">
              {practiceOf(key).name}: <span className="strong">{choiceName(key, choice)}</span>{' '}
              <span className="second">{because}</span>
              {overruled && (
                <div className="brass">
                  Our practice, {choiceName(key, overruled).toLowerCase()}, is not followed: the manual says
                  otherwise.
                </div>
              )}
            </span>
            <span className="second nowrap">{froms[from]}</span>
          </li>
        ))}
      </ul>
      <p className="second">
        Chosen under <Link href="/models/practices">Practices</Link>.
      </p>
    </>
  )
}
