import { showAmount } from '@/core/stores'
import type { ComposedSheet, PartNeed, ComposePage } from '@/core/composing'
import { showNumber } from '@/core/units'
import { likelyWords } from '@/core/wear'
import { Consumables } from './Consumables'

type Props = { sheet: ComposedSheet; page: ComposePage }

/** What is used up for certain, with kits and stores beside it; then what only a finding will ask for. */
export function ComposedParts({ sheet, page }: Props) {
  return (
    <>
      <ul className="line-list" aria-label="Parts">
        {sheet.parts.map((need) => (
          <PartLine key={need.part} need={need} page={page} />
        ))}
        {sheet.parts.length === 0 && <li className="second">Nothing is used up for certain.</li>}
      </ul>
      {sheet.spares.length > 0 && (
        <>
          <h3>To take along, for what is found</h3>
          <ul className="line-list" aria-label="Parts to take along">
            {sheet.spares.map((need) => (
              <PartLine key={need.part} need={need} page={page} spare />
            ))}
          </ul>
        </>
      )}
      <Consumables needs={sheet.consumables} />
    </>
  )
}

function PartLine({ need, page, spare = false }: { need: PartNeed; page: ComposePage; spare?: boolean }) {
  const stocked = page.stock.find((each) => each.part === need.part)
  const kits = page.model.kits.flatMap((kit) => {
    const held = kit.holds.find((piece) => piece.part === need.part)
    return held
      ? [`${Math.ceil(need.quantity / held.quantity)} × ${kit.name} (${showNumber(held.quantity)} in each)`]
      : []
  })
  const part = page.model.parts.find((each) => each.key === need.part)
  return (
    <li>
      <span className="grow">
        {need.name}{' '}
        <span className="second">
          {stocked
            ? [stocked.number, stocked.bin && `bin ${stocked.bin}`].filter(Boolean).join(', ')
            : 'not in the stores'}
        </span>
        {need.look !== undefined && (
          <div className="second">
            {likelyWords(page.renewals[need.look] ?? { looked: 0, renewed: 0 }, need.spots.length)}
          </div>
        )}
        {kits.length > 0 && <div className="second">{kits.join(', ')}</div>}
        {part?.doubt && <Doubt words={`${part.name}: ${part.doubt}`} short={part.doubt} page={page} />}
      </span>
      {stocked && (
        <span className={stocked.free < need.quantity ? 'brass strong nowrap' : 'second nowrap'}>
          {showAmount(stocked.free, need.unit)} free
        </span>
      )}
      <span className={spare ? 'nowrap' : 'strong nowrap'}>
        {spare && 'up to '}
        {showAmount(need.quantity, need.unit)}
      </span>
    </li>
  )
}

/** A doubt of the manual, or what somebody found out about it. */
export function Doubt({ words, short, page }: { words: string; short: string; page: ComposePage }) {
  const settled = page.settled.findLast((each) => each.words === words)
  return settled ? (
    <div className="second">Settled: {settled.answer}</div>
  ) : (
    <p className="caution">In doubt: {short}</p>
  )
}
