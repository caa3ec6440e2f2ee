import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { fluidNames, soldNames } from '@/core/winter'
import { showMoney } from '@/core/units'
import { getCompany } from '@/services/house'
import { listStock } from '@/services/stores'
import { getTerms, listProducts, loadYards } from '@/services/winter'
import { EmptyState } from '@/ui/feedback/States'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { ProductDialog } from '@/ui/winter/dialogs/ProductDialog'
import { TermsDialog } from '@/ui/winter/dialogs/TermsDialog'
import { MixTable } from '@/ui/winter/MixTable'
import { WinterTabs } from '@/ui/winter/WinterTabs'
import { showDegrees, showLitres } from '@/ui/winter/words'
import { requireActor } from '../../../access/session'
import * as actions from '../actions'
import '@/ui/winter/winter.css'

export const metadata: Metadata = { title: 'Fluids and terms' }

export default async function FluidsPage() {
  const actor = await requireActor('/winter/fluids')
  const [products, terms, company, stock, yards] = await Promise.all([
    listProducts(),
    getTerms(actor),
    getCompany(actor),
    listStock(actor),
    loadYards(),
  ])
  const mayEdit = mayDo(actor.role, 'stores.edit')
  const parts = stock.map(({ id, number, name }) => ({ value: id, label: `${number} ${name}` }))
  const chosen = products.find(({ id }) => id === terms.productId)
  return (
    <Page
      title="Fluids and terms"
      summary={chosen ? `${chosen.name} is poured.` : 'Which antifreeze is poured is not chosen yet.'}
      actions={
        <>
          {mayDo(actor.role, 'company.edit') && (
            <TermsDialog
              terms={terms}
              products={products.map(({ id, name }) => ({ value: id, label: name }))}
              yards={yards.map(({ yard }) => ({ value: yard.id, label: yard.name }))}
              currency={company.currency}
              save={actions.saveTerms}
            />
          )}
          {mayEdit && <ProductDialog parts={parts} currency={company.currency} save={actions.saveProduct} />}
        </>
      }
    >
      <WinterTabs active="fluids" />
      <div className="stack">
        {products.length === 0 ? (
          <EmptyState title="No antifreeze yet">
            Enter what stands on its own sheet: fluid, content, freezing point. A burst point alone plans
            nothing.
          </EmptyState>
        ) : (
          products.map((product) => (
            <Part
              key={product.id}
              title={product.name}
              aside={product.id === terms.productId ? 'poured' : ''}
            >
              <Facts
                facts={[
                  ['Fluid', fluidNames[product.fluid]],
                  ['Sold', soldNames[product.sold]],
                  ['Glycol in it', product.contentPercent !== null && `${product.contentPercent} vol %`],
                  ['Freezes at, as sold', product.freezesAtC !== null && showDegrees(product.freezesAtC)],
                  [
                    'Bursts at, as sold',
                    product.burstsAtC !== null && `${showDegrees(product.burstsAtC)}, never planned by`,
                  ],
                  [
                    'Pack',
                    `${showLitres(product.packLitres)}, ${showMoney(product.packCents, company.currency)}`,
                  ],
                  ['Part', parts.find(({ value }) => value === product.partId)?.label ?? 'not stocked'],
                  ['Note', product.note],
                ]}
              />
              <MixTable
                product={product}
                yards={yards.map(({ yard, designLowC }) => ({ name: yard.name, designLowC }))}
                marginC={terms.marginC}
              />
              {mayEdit && (
                <div className="winter-acts">
                  <ProductDialog
                    product={product}
                    parts={parts}
                    currency={company.currency}
                    save={actions.saveProduct}
                  />
                </div>
              )}
            </Part>
          ))
        )}
        <Part title="Terms" aside="ours until the company says otherwise">
          <Facts
            facts={[
              ['Accepted risk', `${terms.riskPercent} % of a machine`],
              ['Margin', `${terms.marginC} °C below the design low`],
              ['Run on', `${terms.runOnPercent} % of a zone after clean colour`],
              ['Alarm', `a night within ${terms.alarmC} °C of what freezes`],
              ['An hour', `${terms.hourCost} ${company.currency}`],
              ['A protector', `${terms.protectorCost} ${company.currency}`],
              ['Weather service', terms.weatherUrl || 'none entered'],
            ]}
          />
        </Part>
      </div>
    </Page>
  )
}
