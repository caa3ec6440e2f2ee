import { qualificationNames } from '@/core/models'
import {
  showMinutes,
  visitNumber,
  visitStates,
  type DayList as List,
  type DayPart,
  type DayTool,
  type DayVisit,
  type GoesOn,
} from '@/core/plan'
import { showAmount } from '@/core/stores'
import { inSentence, showNumber } from '@/core/units'
import { Link } from '../frame/Link'
import { Part } from '../frame/Page'
import { GoingOn } from './GoingOn'
import { serviceWords } from './VisitList'
import { Ticks } from './Ticks'
import './dayList.css'

type Props = {
  own: {
    leadId: string
    lead: string
    visits: DayVisit[]
    goesOn: GoesOn[]
    list: List
    doubts: Record<string, string[]>
  }
  today: string
}

/** Where a part of a day lies. */
export function liesWords({ lies, place, bin }: DayPart): string {
  if (lies === 'picked') return 'laid ready'
  if (lies === 'away') return `to bring over from ${place}`
  return [place, bin && `bin ${bin}`].filter(Boolean).join(', ')
}

/** What there is to mind about a tool. */
export const toolWords = (tool: DayTool): (string | false)[] => [
  tool.special && 'special',
  tool.temporary && 'counted back',
  tool.removalOnly && 'removal only',
]

const of = (visits: string[]) => `visit${visits.length === 1 ? '' : 's'} ${visits.join(', ')}`

/** What one technician takes along on a day, to be ticked off on paper. */
export function DayList({ own: { lead, visits, goesOn, list, doubts }, today }: Props) {
  const head = (
    <>
      <h2 className="day-of">
        {lead}{' '}
        <span className="second">
          {showMinutes(goesOn.reduce((sum, { minutes }) => sum + minutes, list.minutes))} of work
        </span>
      </h2>
      {goesOn.length > 0 && (
        <Part title="Goes on" aside="its parts and tools came on its first day">
          <GoingOn visits={goesOn} today={today} />
        </Part>
      )}
    </>
  )
  if (visits.length === 0)
    return (
      <section className="day-list stack" aria-label={`Day of ${lead}`}>
        {head}
      </section>
    )
  return (
    <section className="day-list stack" aria-label={`Day of ${lead}`}>
      {head}
      <Part title="Visits, in order">
        <ul className="line-list">
          {visits.map(({ visit }) => (
            <li key={visit.id}>
              <span className="grow">
                <Link href={`/plan/${visit.id}`} className="strong">
                  {visit.machineNumber ?? visit.services[0]?.pump}
                </Link>{' '}
                {visit.machineName} <span className="second">visit {visitNumber(visit.number)}</span>
                <span className="second block">{serviceWords(visit as never)}</span>
                {(doubts[visit.id] ?? []).map((words) => (
                  <span key={words} className="block brass">
                    {words}
                  </span>
                ))}
              </span>
              <span className="nowrap">
                {visit.startTime} {showMinutes(visit.minutes)}
                <span className="second block">{visit.place}</span>
              </span>
              <span className="second nowrap">{visitStates[visit.state].toLowerCase()}</span>
              <span className="no-print nowrap">
                <Link href={`/plan/${visit.id}/packet`}>Packet</Link>
              </span>
            </li>
          ))}
        </ul>
      </Part>
      <div className="columns">
        <div className="stack">
          <Part title="Parts" aside="by bin; a bag for each visit">
            <Ticks
              rows={list.parts.map((part) => ({
                key: part.key,
                what: `${part.number} ${part.name}`,
                about: [liesWords(part), part.lot, of(part.visits)],
                amount: showAmount(part.quantity, part.unit),
              }))}
              nothing="No parts of the stores."
            />
            {list.short.length > 0 && (
              <>
                <h3 className="oxide">Short</h3>
                <Ticks
                  rows={list.short.map((part) => ({
                    key: part.name,
                    what: part.name,
                    about: [of(part.visits)],
                    amount: showAmount(part.quantity, part.unit),
                  }))}
                />
              </>
            )}
          </Part>
          {list.inCase.length > 0 && (
            <Part title="Parts in case" aside="used only where a finding asks for it">
              <Ticks
                rows={list.inCase.map(({ name, quantity, unit, visits: own }) => ({
                  key: `${name} ${unit}`,
                  what: name,
                  about: [of(own)],
                  amount: `up to ${showAmount(quantity, unit as never)}`,
                }))}
              />
            </Part>
          )}
          {list.consumables.length > 0 && (
            <Part title="Bottles and tubes" aside="about so much, for all visits together">
              <Ticks
                rows={list.consumables.map(({ name, quantity, unit, applications, visits: own }) => ({
                  key: `${name} ${unit}`,
                  what: name[0]!.toUpperCase() + name.slice(1),
                  about: [applications === 1 ? 'one application' : `${applications} applications`, of(own)],
                  amount: `about ${showNumber(quantity)} ${unit}`,
                }))}
              />
            </Part>
          )}
        </div>
        <div className="stack">
          <Part title="Loading" aside="first in lies deepest">
            <ol className="loading">
              {list.loading.map(({ what, why }) => (
                <li key={what}>
                  {what} <span className="second">{why}</span>
                </li>
              ))}
            </ol>
          </Part>
          <Part title="Tools" aside="each once">
            <Ticks
              rows={list.tools.map((tool) => ({
                key: tool.name,
                what: tool.name,
                about: [...toolWords(tool), visits.length > 1 && of(tool.visits)],
              }))}
              nothing="No tools."
            />
            {list.toolsInCase.length > 0 && (
              <>
                <h3>In case</h3>
                <Ticks
                  rows={list.toolsInCase.map((tool) => ({
                    key: tool.name,
                    what: tool.name,
                    about: [tool.special && 'special', visits.length > 1 && of(tool.visits)],
                  }))}
                />
              </>
            )}
          </Part>
          {(list.lifts.length > 0 || list.helpers.length > 0 || list.qualifications.length > 0) && (
            <Part title="Heavy lifts and people" aside="slings and lifting are for qualified people">
              <ul className="line-list">
                {list.lifts.map(({ words, what, visit }) => (
                  <li key={visit + what + words}>
                    <span className="grow">
                      {words} <span className="second">{what}</span>
                    </span>
                    <span className="second nowrap">visit {visit}</span>
                  </li>
                ))}
                {list.helpers.map(({ visit, machine, minutes, names }) => (
                  <li key={`helper ${visit}`}>
                    <span className="grow">
                      A second person for {showMinutes(minutes)} on {machine}
                      <span className={names.length === 0 ? 'brass block' : 'second block'}>
                        {names.length === 0 ? 'nobody is named yet' : names.join(', ')}
                      </span>
                    </span>
                    <span className="second nowrap">visit {visit}</span>
                  </li>
                ))}
                {list.qualifications.map(({ qualification, visits: own }) => (
                  <li key={qualification}>
                    <span className="grow">
                      Somebody {inSentence(qualificationNames[qualification])}{' '}
                      <span className="second">by local codes</span>
                    </span>
                    <span className="second nowrap">{of(own)}</span>
                  </li>
                ))}
              </ul>
            </Part>
          )}
        </div>
      </div>
    </section>
  )
}
