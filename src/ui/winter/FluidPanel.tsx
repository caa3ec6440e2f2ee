import { showDay } from '@/core/calendar'
import { showMoney } from '@/core/units'
import type { WinterFluid } from '@/core/winter'
import { Link } from '../frame/Link'
import { showLitres } from './words'

const most = 14

/** What is there, what has still to go in, and what has to be bought by when; cans drawn for both. */
export function FluidPanel({
  fluid,
  today,
  currency,
}: {
  fluid: WinterFluid
  today: string
  currency: string
}) {
  if (fluid.product === null)
    return (
      <section className="panel fluid-panel" aria-label="Fluid">
        <p>
          No antifreeze is chosen yet: <Link href="/winter/fluids">enter what you pour</Link>, as its own
          sheet states it, and litres, recipes and what to buy follow.
        </p>
      </section>
    )
  const there = fluid.inStoresLitres ?? 0
  const cans = Math.min(most, Math.ceil(there / fluid.packLitres - 1e-9))
  const buy = Math.min(most, fluid.packs)
  return (
    <section className="panel fluid-panel" aria-label="Fluid">
      <Cans full={there / fluid.packLitres} cans={cans} buy={buy} />
      <p>
        <span className="big">{fluid.inStoresLitres === null ? 'not stocked' : showLitres(there)}</span>
        <span className="second">
          {fluid.product}
          {fluid.inStoresLitres === null ? ', tie it to a part of the stores' : ' in stores'}
        </span>
      </p>
      <p>
        <span className="big">{showLitres(fluid.toGoLitres)}</span>
        <span className="second">
          still to go in
          {fluid.waterLitres > 0 && `, with ${showLitres(fluid.waterLitres)} of water`}
        </span>
      </p>
      <p>
        <span className="big petrol">
          {fluid.packs === 0 ? 'Nothing to buy' : `Buy ${fluid.packs} × ${showLitres(fluid.packLitres)}`}
        </span>
        <span className="second">
          leaves {showLitres(Math.max(0, fluid.leftLitres))} spare
          {fluid.packs > 0 && `, ${showMoney(fluid.cents, currency)}`}
        </span>
      </p>
      <p className="grow">
        {fluid.shortOn && fluid.packs > 0 ? (
          <>
            Order by <strong>{fluid.orderBy === today ? 'today' : showDay(fluid.orderBy!, today)}</strong>:
            what is there runs out on {showDay(fluid.shortOn, today)}.
          </>
        ) : (
          'What is there is enough.'
        )}
        {fluid.partNumber && (
          <>
            {' '}
            <Link href={`/stores/${fluid.partNumber}`}>{fluid.partNumber}</Link>
          </>
        )}
      </p>
    </section>
  )
}

function Cans({ full, cans, buy }: { full: number; cans: number; buy: number }) {
  const can = (at: number, level: number, dashed: boolean) => (
    <g key={`${dashed}${at}`} transform={`translate(${at * 30 + (dashed ? cans * 30 + 8 : 0)} 0)`}>
      <path
        d="M6 8V3h10v5h4v28H1V8z"
        fill="none"
        stroke={dashed ? 'var(--petrol)' : 'var(--ink)'}
        strokeWidth="1.4"
        strokeDasharray={dashed ? '3 2.5' : undefined}
      />
      {!dashed && level > 0 && (
        <rect x="2.5" y={35 - 26 * level} width="16" height={26 * level} fill="var(--petrol)" />
      )}
    </g>
  )
  if (cans + buy === 0) return null
  return (
    <svg
      width={(cans + buy) * 30 + 10}
      height="40"
      role="img"
      aria-label={`${Math.round(full * 10) / 10} cans there, ${buy} to buy`}
    >
      {Array.from({ length: cans }, (_, at) => can(at, Math.min(1, full - at), false))}
      {cans > 0 && buy > 0 && (
        <line x1={cans * 30 + 1} x2={cans * 30 + 1} y1="0" y2="40" stroke="var(--ink)" strokeWidth="2" />
      )}
      {Array.from({ length: buy }, (_, at) => can(at, 0, true))}
    </svg>
  )
}
