import type { Metadata } from 'next'
import { methodNames, zoneNames } from '@/core/winter'
import { showMoney } from '@/core/units'
import { getCompany } from '@/services/house'
import { compareMethods } from '@/services/winter'
import { Link } from '@/ui/frame/Link'
import { Page, Part } from '@/ui/frame/Page'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '@/ui/table/Table'
import { WinterTabs } from '@/ui/winter/WinterTabs'
import { showLitres, showWork } from '@/ui/winter/words'
import { requireActor } from '../../../access/session'

export const metadata: Metadata = { title: 'Winter methods' }

export default async function MethodsPage() {
  const actor = await requireActor('/winter/methods')
  const [page, company] = await Promise.all([compareMethods(actor), getCompany(actor)])
  const { total } = page
  return (
    <Page
      title="Methods side by side"
      summary={`${page.machines} machines as chosen: ${showLitres(total.litres)} of ${page.product ?? 'no fluid chosen'}, ${showWork(total.minutes)}, ${showMoney(total.cents, company.currency)}.`}
    >
      <WinterTabs active="methods" />
      <div className="stack">
        <p className="second">
          Good workshops differ. The company chooses under <Link href="/models/practices">practices</Link>, a
          model or a machine may differ, and the maker’s manual wins. Each figure is the whole fleet done in
          that way.
        </p>
        {page.zones.map(({ zone, machines, methods }) => (
          <Part key={zone} title={zoneNames[zone]} aside={`${machines} machines have it`}>
            <Table>
              <TableHead>
                <TableRow>
                  <HeadCell>Method</HeadCell>
                  <HeadCell className="right">Chosen for</HeadCell>
                  <HeadCell className="right">Fluid</HeadCell>
                  <HeadCell className="right">Work</HeadCell>
                  <HeadCell className="right">Cost</HeadCell>
                  <HeadCell>What it leaves</HeadCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {methods.map((each) => (
                  <TableRow key={each.method}>
                    <TableCell className={each.chosen > 0 ? 'strong' : ''}>
                      {methodNames[each.method]}
                    </TableCell>
                    <TableCell className="right">{each.chosen > 0 ? each.chosen : '–'}</TableCell>
                    <TableCell className="right nowrap">
                      {each.litres > 0 ? showLitres(each.litres) : '–'}
                    </TableCell>
                    <TableCell className="right nowrap">{showWork(each.minutes)}</TableCell>
                    <TableCell className="right nowrap">{showMoney(each.cents, company.currency)}</TableCell>
                    <TableCell>
                      {[
                        each.cannot > 0 && `the fluid cannot reach it on ${each.cannot}`,
                        each.unprotected > 0 && `something stays unprotected on ${each.unprotected}`,
                        each.dries,
                        each.droplets,
                      ]
                        .filter(Boolean)
                        .join(' · ')}
                    </TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </Part>
        ))}
      </div>
    </Page>
  )
}
