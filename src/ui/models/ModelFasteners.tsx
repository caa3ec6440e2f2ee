import { patternWords, treatmentWords, type Fastener, type PumpModel } from '@/core/models'
import type { SettledTorque } from '@/core/sheets'
import { showTorque, tighteningOrder } from '@/core/torque'
import { showNumber } from '@/core/units'
import { BoltMap } from '../graphics/BoltMap'

/** Every fastener with its torque in three units, its source, its treatment, and its drawn order. */
export function ModelFasteners({ model, lookedUp }: { model: PumpModel; lookedUp: SettledTorque[] }) {
  return (
    <ul className="plain-list">
      {model.fasteners.map((fastener) => (
        <li key={fastener.key} className="fastener-line">
          <div>
            <p>
              <span className="strong">{fastener.name}</span>{' '}
              <span className="second">{fastener.count > 1 ? `${fastener.count} of them` : ''}</span>
            </p>
            <p className="strong">{showTorque(fastener.torque)}</p>
            <p className="second">{factsOf(fastener).join(' · ')}</p>
            {fastener.torque.state === 'stated' && !fastener.torque.verified && (
              <p className="brass strong">Not verified yet</p>
            )}
            {lookedUp
              .filter((each) => each.fastener === fastener.key)
              .map(({ value, unit, page, byName, sheet }) => (
                <p key={sheet}>
                  Looked up at the bench:{' '}
                  <span className="strong">
                    {showNumber(value)} {unit}
                  </span>
                  , {page}{' '}
                  <span className="second">
                    {byName}, sheet {sheet}. It is offered on every sheet of this version.
                  </span>
                </p>
              ))}
            {fastener.doubt && <p className="caution">In doubt: {fastener.doubt}</p>}
          </div>
          <FastenerMap fastener={fastener} />
        </li>
      ))}
    </ul>
  )
}

function factsOf(fastener: Fastener): string[] {
  const { torque, treatment } = fastener
  return [
    torque.state === 'stated' && torque.stages.length > 1
      ? `stages ${torque.stages.map((stage) => showNumber(stage)).join(', then ')} ${torque.unit}`
      : '',
    treatmentWords(treatment),
    patternWords(fastener),
    torque.source || 'no source given',
  ].filter(Boolean)
}

/** The order a fastener is tightened in, drawn; nothing where it has no layout. */
export function FastenerMap({ fastener, order }: { fastener: Fastener; order?: string[] }) {
  if (fastener.layout.length === 0) return null
  const { pattern, retapFirst, layout, torque } = fastener
  if (pattern === 'single') return null
  const bolts = layout.map(({ x, y }, index) => ({ id: String(index + 1), x, y, number: index + 1 }))
  return (
    <BoltMap
      layout={layout}
      order={
        order ?? tighteningOrder(bolts, pattern === 'notStated' ? 'crissCross' : pattern, { retapFirst })
      }
      stages={torque.state === 'stated' ? Math.max(torque.stages.length, 1) : 1}
      pinned={fastener.pinned}
      name={fastener.name}
    />
  )
}
