import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { showDay } from '@/core/calendar'
import { dayOfWinter, expectedAt, winterOf, type Threshold, type YardClimateInput } from '@/core/winter'
import { getCompany, present } from '@/services/house'
import { loadYards } from '@/services/winter'
import { EmptyState } from '@/ui/feedback/States'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { ClimateDialog } from '@/ui/winter/dialogs/ClimateDialog'
import { MinimaImport } from '@/ui/winter/dialogs/MinimaImport'
import { WinterTabs } from '@/ui/winter/WinterTabs'
import { showDegrees } from '@/ui/winter/words'
import { requireActor } from '../../../access/session'
import * as actions from '../actions'
import '@/ui/winter/winter.css'

export const metadata: Metadata = { title: 'Frost of the yards' }

export default async function YardsPage() {
  const actor = await requireActor('/winter/yards')
  const [yards, company] = await Promise.all([loadYards(), getCompany(actor)])
  const { today } = present(company)
  const mayEdit = mayDo(actor.role, 'fleet.edit')
  const year = winterOf(today)
  const days = (threshold: Threshold | undefined, which: 'first' | 'last') => {
    const expected = threshold?.[which]
    if (!expected) return 'never seen'
    const at = (chance: number) => showDay(dayOfWinter(year, expectedAt(expected, chance)), today)
    const share = threshold.share < 1 ? `, in ${Math.round(threshold.share * 100)} % of winters` : ''
    return `${at(0.5)}, between ${at(0.1)} and ${at(0.9)} in four winters of five${share}`
  }
  return (
    <Page
      title="Frost of the yards"
      summary="From daily minima, or as you know it by heart. The fewer winters are known, the wider the days lie."
    >
      <WinterTabs active="yards" />
      {yards.length === 0 ? (
        <EmptyState title="No yard yet">Add a yard under Fleet; its frost is entered here.</EmptyState>
      ) : (
        <div className="winter-yards">
          {yards.map(({ yard, row, climate, stands, heatedSpace, designLowC, outlook, outlookSays }) => {
            const at = (standsC: number) =>
              climate?.thresholds.find((each) => each.standsC === standsC) ?? climate?.thresholds[0]
            const entered = row?.entered?.thresholds[0]
            const values: YardClimateInput = {
              yardId: yard.id,
              ...(row && { version: row.version }),
              firstFrost: entered?.first ? dayOfWinter(year, entered.first.mean) : null,
              firstSpreadDays: entered?.first?.scale ?? null,
              lastFrost: entered?.last ? dayOfWinter(year, entered.last.mean) : null,
              lastSpreadDays: entered?.last?.scale ?? null,
              designLowC: row?.entered?.designLowC ?? null,
              heatedStandsC: stands.heated.standsC,
              heatedReason: stands.heated.reason,
              hallStandsC: stands.indoorsUnheated.standsC,
              hallReason: stands.indoorsUnheated.reason,
              outdoorsStandsC: stands.outdoors.standsC,
              outdoorsReason: stands.outdoors.reason,
              heatedSpace,
            }
            return (
              <Part
                key={yard.id}
                title={yard.name}
                aside={
                  climate === null
                    ? 'nothing known yet'
                    : climate.winters.length > 0
                      ? `${climate.winters.length} whole winters of ${row?.fileName || 'imported minima'}`
                      : 'entered by heart'
                }
              >
                <Facts
                  facts={[
                    ['First frost', climate && days(at(0), 'first')],
                    ['Last frost', climate && days(at(0), 'last')],
                    ['Hall freezes first', climate && climate.winters.length > 0 && days(at(-4), 'first')],
                    [
                      'Design low',
                      designLowC !== null && `${showDegrees(designLowC)}, passed in one winter of ten`,
                    ],
                    [
                      'Left out',
                      climate &&
                        climate.leftOut.length > 0 &&
                        climate.leftOut
                          .map(
                            ({ winter, missing }) =>
                              `${winter}/${(winter + 1) % 100}: ${missing} days missing`,
                          )
                          .join(', '),
                    ],
                    [
                      'Gaps',
                      climate &&
                        climate.gaps.length > 0 &&
                        `${climate.gaps.length}, from ${climate.gaps[0]!.from}`,
                    ],
                    ['Outdoors', place(stands.outdoors)],
                    ['Unheated hall', place(stands.indoorsUnheated)],
                    ['Heated store', place(stands.heated)],
                    ['Room for a night', heatedSpace ? 'in the heated hall' : 'none'],
                    ['Outlook', outlookSays],
                    [
                      'Nights to come',
                      outlook &&
                        outlook
                          .map(({ day, minC }) => `${showDay(day, today)} ${showDegrees(minC)}`)
                          .join(' · '),
                    ],
                  ]}
                />
                {mayEdit && (
                  <div className="winter-acts">
                    <ClimateDialog name={yard.name} values={values} save={actions.saveClimate} />
                    <MinimaImport yardId={yard.id} name={yard.name} take={actions.importMinima} />
                  </div>
                )}
              </Part>
            )
          })}
        </div>
      )}
    </Page>
  )
}

const place = ({ standsC, reason }: { standsC: number | null; reason: string }) =>
  `${standsC === null ? 'never freezes' : `freezes at ${showDegrees(standsC)} outside`}${reason ? `. ${reason}` : ''}`
