import { phaseNames } from '@/core/models'
import { dayListOf, showMinutes, type VisitPage } from '@/core/plan'
import { showAmount, type PickPage } from '@/core/stores'
import { showNumber } from '@/core/units'
import { WhoItTakes } from '../composing'
import { Note } from '../feedback/States'
import { Part } from '../frame/Page'
import { liesWords, toolWords } from './DayList'
import { Ticks } from './Ticks'
import './dayList.css'

type Props = { visit: VisitPage; pick: PickPage; code: string }

const nameOf = (phase: string) => phaseNames[phase as keyof typeof phaseNames] ?? phase

/** One visit on paper: what is done, what goes along, what it is tightened to, what to mind, step by step. */
export function Packet({ visit, pick, code }: Props) {
  const list = dayListOf([{ visit, pick }])
  const phases = [...new Set(visit.steps.map(({ phase }) => phase))]
  return (
    <div className="packet stack">
      <Note tone="brass" title="The maker’s manual, local rules and qualified people come first.">
        Isolate and lock out every energy source, relieve stored pressure and prove zero before a fitting is
        loosened. Any injection wound is an emergency. {visit.notice}
      </Note>
      {visit.held && (
        <Note tone="oxide" title="Do not start.">
          {visit.held}
        </Note>
      )}
      <div className="columns">
        <Part title="Services" aside={`about ${showMinutes(visit.minutes)}`}>
          <ul className="line-list">
            {[...visit.services, ...visit.implied.map((each) => ({ ...each, pump: 'comes with it' }))].map(
              ({ name, where, pump }) => (
                <li key={name + where + pump}>
                  <span className="grow">
                    {name} <span className="second">{where}</span>
                  </span>
                  <span className="second nowrap">{pump}</span>
                </li>
              ),
            )}
          </ul>
          <WhoItTakes {...visit} />
          {visit.helpers.length > 0 && <p>Helps: {visit.helpers.join(', ')}</p>}
          {visit.note && <p className="strong">{visit.note}</p>}
          <div
            className="packet-code"
            role="img"
            aria-label={`Code of visit ${visit.number}`}
            dangerouslySetInnerHTML={{ __html: code }}
          />
        </Part>
        <Part title="Cautions" aside="each stands again at its step">
          <ul className="line-list">
            {visit.cautions.map(({ words, where }) => (
              <li key={words + where}>
                <span className="grow">
                  {words} <span className="second">{where}</span>
                </span>
              </li>
            ))}
          </ul>
        </Part>
      </div>
      <div className="columns">
        <Part title="Parts" aside="by bin">
          <Ticks
            rows={[
              ...list.parts.map((part) => ({
                key: part.key,
                what: `${part.number} ${part.name}`,
                about: [liesWords(part), part.lot],
                amount: showAmount(part.quantity, part.unit),
              })),
              ...list.short.map((part) => ({
                key: `short ${part.name}`,
                what: part.name,
                about: ['short'],
                amount: showAmount(part.quantity, part.unit),
              })),
              ...list.inCase.map((part) => ({
                key: `case ${part.name}`,
                what: part.name,
                about: ['in case'],
                amount: `up to ${showAmount(part.quantity, part.unit as never)}`,
              })),
              ...list.consumables.map((need) => ({
                key: `drops ${need.name}`,
                what: need.name[0]!.toUpperCase() + need.name.slice(1),
                about: [`${need.applications} applications`],
                amount: `about ${showNumber(need.quantity)} ${need.unit}`,
              })),
            ]}
            nothing="None."
          />
        </Part>
        <Part title="Tools">
          <Ticks
            rows={[...list.tools, ...list.toolsInCase].map((tool) => ({
              key: tool.name,
              what: tool.name,
              about: [...toolWords(tool), tool.contingency && 'in case'],
            }))}
          />
        </Part>
      </div>
      {visit.fasteners.length > 0 && (
        <Part title="Torque" aside="with its treatment; another treatment is another torque">
          <ul className="line-list">
            {visit.fasteners.map((fastener) => (
              <li key={fastener.pump + fastener.name}>
                <span className="grow">
                  {fastener.name}{' '}
                  <span className="second">
                    {[fastener.pump, fastener.count > 1 && `${fastener.count} of them`, fastener.where]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                  <span className="second block">
                    {[fastener.treatment, fastener.source].filter(Boolean).join(' · ')}
                  </span>
                  {fastener.unverified && (
                    <span className="brass block">not verified against the manual yet</span>
                  )}
                  {fastener.notes.map((note) => (
                    <span key={note} className="caution-line">
                      {note}
                    </span>
                  ))}
                </span>
                <span className="strong">
                  {fastener.stages.map((stage, at) => (
                    <span key={stage} className="block nowrap">
                      {fastener.stages.length > 1 && `${at + 1}: `}
                      {stage}
                    </span>
                  ))}
                </span>
              </li>
            ))}
          </ul>
        </Part>
      )}
      {phases.map((phase) => (
        <Part key={phase} title={nameOf(phase)}>
          <ol className="packet-steps">
            {visit.steps
              .filter((step) => step.phase === phase)
              .map((step, at, all) => (
                <li key={step.key}>
                  <span className="tick-box" aria-hidden="true" />
                  <div>
                    {step.heading !== all[at - 1]?.heading && step.heading !== nameOf(phase) && (
                      <div className="strong">{step.heading}</div>
                    )}
                    {step.onlyIf && <span className="second">Only if {step.onlyIf}: </span>}
                    {step.text} <span className="second">{step.where}</span>
                    {step.torque && (
                      <div className="strong">
                        {step.torque}
                        {step.unverified && <span className="brass"> · not verified yet</span>}
                      </div>
                    )}
                    {step.timer && (
                      <div>
                        {{ soak: 'Soaks', sets: 'Sets in', cured: 'Cures' }[step.timer.kind]}{' '}
                        {showMinutes(step.timer.minutes)}
                      </div>
                    )}
                    {step.lift && <p className="caution">{step.lift}</p>}
                    {step.caution && <p className="caution">{step.caution}</p>}
                  </div>
                </li>
              ))}
          </ol>
        </Part>
      ))}
    </div>
  )
}
