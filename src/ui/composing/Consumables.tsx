import type { ConsumableNeed } from '@/core/composing'
import { showNumber } from '@/core/units'

/** Bottles and tubes to have there: what goes on by drops and films, with about how much. */
export function Consumables({ needs, head = true }: { needs: ConsumableNeed[]; head?: boolean }) {
  if (needs.length === 0) return null
  return (
    <>
      {head && <h3>Bottles and tubes</h3>}
      <ul className="line-list" aria-label="Bottles and tubes">
        {needs.map(({ name, quantity, unit, applications }) => (
          <li key={`${name} ${unit}`}>
            <span className="grow">
              {name[0]!.toUpperCase() + name.slice(1)}{' '}
              <span className="second">
                {applications === 1 ? 'one application' : `${applications} applications`}
              </span>
            </span>
            <span className="nowrap">
              about {showNumber(quantity)} {unit}
            </span>
          </li>
        ))}
      </ul>
    </>
  )
}
