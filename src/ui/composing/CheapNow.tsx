'use client'

import { showMinutes } from '@/core/plan'
import type { Offer } from '@/core/composing'
import type { PumpModel } from '@/core/models'
import { whereWords, type WearView } from '@/core/wear'
import { Button } from '../frame/Button'
import { Part } from '../frame/Page'

type Props = { offers: Offer[]; model: PumpModel; wear: WearView; add: (offer: Offer) => void }

/** What the open pump makes cheap: what each further service costs now, and what it would cost alone. */
export function CheapNow({ offers, model, wear, add }: Props) {
  const open = offers.filter(({ openAlready }) => openAlready.length > 0)
  const shown = open.length > 0 ? open.slice(0, 5) : offers.slice(0, 2)
  if (shown.length === 0) return null
  return (
    <Part title="Cheap while it is open" aside="what it costs now, and what it would cost alone">
      <ul aria-label="Cheap while it is open">
        {shown.map((offer) => (
          <li key={offer.task} className="offer">
            <span>
              <span className="strong">{offer.name}</span>{' '}
              <span className="second">{whereWords(model, offer.positions)}</span>
              <div>
                {showMinutes(offer.now)} more now,{' '}
                <span className="second">{showMinutes(offer.alone)} alone</span>
                {offer.openAlready.length > 0 && (
                  <span className="second"> · {offer.openAlready.at(-1)!.toLowerCase()} already</span>
                )}
                <UsedWords wear={wear} task={offer.task} />
              </div>
            </span>
            <Button variant="outlined" onClick={() => add(offer)}>
              Add
            </Button>
          </li>
        ))}
      </ul>
    </Part>
  )
}

/** How much of its life it has had: cheap is not the same as sensible. */
function UsedWords({ wear, task }: { wear: WearView; task: string }) {
  const [worst] = wear.clocks.filter((clock) => clock.task === task)
  if (!worst) return null
  const share = Math.round(worst.share * 100)
  return (
    <span className={share >= 85 ? 'brass' : 'second'}>
      {' '}
      · {share}&#8239;% of its limit {share >= 85 ? 'used: it is close' : 'used'}
    </span>
  )
}
