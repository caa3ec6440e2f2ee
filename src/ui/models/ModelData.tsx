import type { Fastener, PumpModel, Task } from '@/core/pump'
import { showTorque } from '@/core/torque'
import { showNumber } from '@/core/units'
import { Note } from '../feedback/States'
import { Part } from '../frame/Page'

/** What a model says: services with their limits, the way in, torques, parts. */
export function ModelData({ model }: { model: PumpModel }) {
  return (
    <div className="stack">
      {model.notice && (
        <Note tone="brass" title="Mind:">
          {model.notice}
        </Note>
      )}
      <div className="columns even">
        <div className="stack">
          <Part title="Services" aside="limits: whichever comes first">
            <table className="table plain">
              <thead>
                <tr>
                  <th scope="col">Service</th>
                  <th scope="col">Every</th>
                  <th scope="col" className="num">
                    Minutes each
                  </th>
                </tr>
              </thead>
              <tbody>
                {model.tasks.map((task) => (
                  <tr key={task.key}>
                    <td>
                      {task.name}
                      <div className="second">
                        {task.positions.map((key) => nameIn(model.positions, key)).join(', ')}
                        {task.at && ` · ${nameIn(model.access, task.at)}`}
                      </div>
                    </td>
                    <td>{limitWords(task, model.usage)}</td>
                    <td className="num">{task.minutes}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Part>
          <Part title="The way in" aside="minutes to open and close">
            <AccessTree model={model} parent={null} />
          </Part>
        </div>
        <div className="stack">
          <Part title="Torque" aside="always in three units">
            <table className="table plain">
              <tbody>
                {model.fasteners.map((fastener) => (
                  <tr key={fastener.key}>
                    <td>
                      {fastener.name}{' '}
                      <span className="second">{fastener.count > 1 ? `${fastener.count} of them` : ''}</span>
                      <div className="second">{treatmentWords(fastener)}</div>
                    </td>
                    <td>{torqueWords(fastener)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Part>
          <Part title="Parts">
            <ul className="line-list">
              {model.parts.map((part) => (
                <li key={part.key}>
                  <span className="grow">
                    {part.name} <span className="second">{part.synonyms.join(', ')}</span>
                  </span>
                  <span className="second">{part.material}</span>
                </li>
              ))}
            </ul>
          </Part>
        </div>
      </div>
    </div>
  )
}

function AccessTree({ model, parent }: { model: PumpModel; parent: string | null }) {
  const nodes = model.access.filter((node) => node.parent === parent)
  if (nodes.length === 0) return null
  return (
    <ul className="access-tree">
      {nodes.map((node) => (
        <li key={node.key}>
          {node.name}{' '}
          <span className="second">
            {node.openMinutes} + {node.closeMinutes} min
            {node.repeat ? `, each ${nameIn(model.repeats, node.repeat)}` : ''}
            {node.consumes.length > 0 &&
              ` · always renewed: ${node.consumes.map((use) => nameIn(model.parts, use.part)).join(', ')}`}
          </span>
          <AccessTree model={model} parent={node.key} />
        </li>
      ))}
    </ul>
  )
}

function nameIn(list: { key: string; name: string }[], key: string): string {
  return list.find((each) => each.key === key)?.name ?? key
}

function limitWords({ limit }: Task, usage: string): string {
  const unit = usage === 'h' ? 'h' : 'strokes'
  const parts = [
    limit.hours === null ? '' : `${showNumber(limit.hours)}\u00a0${unit}`,
    limit.days === null ? '' : `${showNumber(limit.days)}\u00a0days`,
  ]
  const first = limit.firstHours === null ? '' : `, the first at ${showNumber(limit.firstHours)}\u00a0${unit}`
  return parts.filter(Boolean).join(' or ') + first
}

function torqueWords({ torque }: Fastener): React.ReactNode {
  if (torque.state !== 'stated') return showTorque(torque)
  return (
    <>
      <span className="strong">{showTorque(torque)}</span>
      <div className="second">
        {torque.stages.length > 1 &&
          `in stages of ${torque.stages.map((stage) => showNumber(stage)).join(', then ')} ${torque.unit} · `}
        {torque.source || 'no source given'}
        {!torque.verified && <span className="brass strong"> · not verified yet</span>}
      </div>
    </>
  )
}

const treatmentNames = {
  none: 'as the manual states',
  threadLubricant: 'thread lubricant',
  threadlocker: 'threadlocker',
  sealant: 'sealant',
  assemblyLubricant: 'assembly lubricant',
  grease: 'grease',
}

function treatmentWords({ treatment }: Fastener): string {
  const words = [
    treatment.product,
    treatmentNames[treatment.kind],
    treatment.amount && `(${treatment.amount})`,
  ]
  return words.filter(Boolean).join(' ')
}
