import { showLongDay } from '@/core/calendar'
import { showAmount, type PickPage } from '@/core/stores'
import './stores.css'

type Label = PickPage['picked'][number]

/** Labels to cut out: what is in the bag, its lot, for which visit, and the same as a code. */
export function BagLabels({
  labels,
  visit,
  where,
  day,
}: {
  labels: Label[]
  visit: string
  where: string
  day: string
}) {
  return (
    <ul className="bag-labels">
      {labels.map((label) => (
        <li key={`${label.lotId} ${label.placeId} ${label.state}`}>
          <span className="bag-code" aria-hidden dangerouslySetInnerHTML={{ __html: label.code }} />
          <span>
            <span className="strong block">
              {label.number} · {showAmount(label.quantity, label.unit)}
            </span>
            <span className="block">{label.name}</span>
            <span className="second block">
              Lot {label.lot} · visit {visit} · {showLongDay(day)}
            </span>
            <span className="second block">{where}</span>
          </span>
        </li>
      ))}
    </ul>
  )
}
