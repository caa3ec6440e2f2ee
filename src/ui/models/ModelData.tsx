import { qualificationNames, taskKindNames, type PumpModel, type Task } from '@/core/models'
import { inSentence, showNumber } from '@/core/units'
import type { SettledTorque } from '@/core/sheets'
import { choiceName, practiceOf } from '@/core/practices'
import { Part } from '../frame/Page'
import { ModelFasteners } from './ModelFasteners'
import { ModelSteps } from './ModelSteps'
import { ModelTree, nameIn } from './ModelTree'
import { Table, TableBody, TableCell, TableRow } from '../table/Table'

/** Everything a model says, readably: services, the way in, torques with their order, parts, kits, tools. */
export function ModelData({ model, lookedUp }: { model: PumpModel; lookedUp: SettledTorque[] }) {
  return (
    <div className="columns even">
      <div className="stack">
        <Part title="Services" aside="limits: whichever comes first">
          <Tasks model={model} />
        </Part>
        <Part title="The way in" aside="minutes to open and close; open a line for its steps">
          <ModelTree model={model} />
        </Part>
        <Part title="Once for the whole visit" aside="before and after everything">
          <details>
            <summary>
              Make safe <span className="second">{model.makeSafeMinutes} min</span>
            </summary>
            <ModelSteps steps={model.makeSafe} model={model} />
          </details>
          <details>
            <summary>
              Prove <span className="second">{model.proveMinutes} min</span>
            </summary>
            <ModelSteps steps={model.prove} model={model} />
          </details>
        </Part>
        <Part title="Positions" aside="where which part wears">
          <Positions model={model} />
        </Part>
      </div>
      <div className="stack">
        <Part title="Torque and order" aside="always in three units">
          <ModelFasteners model={model} lookedUp={lookedUp} />
        </Part>
        {model.manual.length > 0 && (
          <Part title="What the manual says where workshops differ" aside="it wins over our practice">
            <ul className="line-list">
              {model.manual.map(({ practice, choice, source }) => (
                <li key={practice}>
                  <span className="grow">
                    {practiceOf(practice).name}:{' '}
                    <span className="strong">{choiceName(practice, choice)}</span>
                  </span>
                  <span className="second">{source}</span>
                </li>
              ))}
            </ul>
          </Part>
        )}
        {model.facts.length > 0 && (
          <Part title="What is found out on each unit" aside="asked once, kept with it">
            <ul className="line-list">
              {model.facts.map(({ key, name, answers }) => (
                <li key={key}>
                  <span className="grow">{name}</span>
                  <span className="second">{answers.join(' / ')}</span>
                </li>
              ))}
            </ul>
          </Part>
        )}
        {model.wet && (
          <Part title="Water in it" aside="what freezes">
            <ul className="line-list">
              <li>
                <span className="grow">
                  {showNumber(model.wet.drains)} L run out by themselves{' '}
                  <span className="second">{model.wet.traps}</span>
                  <div className="second">{model.wet.source}</div>
                </span>
                <span className="strong nowrap">{showNumber(model.wet.litres)} L</span>
              </li>
            </ul>
          </Part>
        )}
        <Part title="Kits" aside="as the maker sells them">
          {model.kits.length === 0 ? (
            <p className="second">None: every part is bought by itself.</p>
          ) : (
            <ul className="line-list">
              {model.kits.map((kit) => (
                <li key={kit.key}>
                  <span className="grow">
                    {kit.name} <span className="second">{kit.makersNumber}</span>
                    <div className="second">
                      {kit.holds
                        .map(
                          ({ part, quantity }) =>
                            `${showNumber(quantity)} ${inSentence(nameIn(model.parts, part))}`,
                        )
                        .join(', ')}
                    </div>
                  </span>
                </li>
              ))}
            </ul>
          )}
        </Part>
        {model.fluids.length > 0 && (
          <Part title="Fluids">
            <ul className="line-list">
              {model.fluids.map((fluid) => (
                <li key={fluid.key}>
                  <span className="grow">
                    {fluid.name} <span className="second">{fluid.grade}</span>
                    <div className="second">{[fluid.level, fluid.source].filter(Boolean).join(' · ')}</div>
                  </span>
                  <span className="strong nowrap">{showNumber(fluid.litres)} L</span>
                </li>
              ))}
            </ul>
          </Part>
        )}
        <Part title="Parts">
          <ul className="line-list">
            {model.parts.map((part) => (
              <li key={part.key}>
                <span className="grow">
                  {part.name} <span className="second">{part.synonyms.join(', ')}</span>
                  {part.doubt && <p className="caution">In doubt: {part.doubt}</p>}
                </span>
                <span className="second">
                  {[
                    part.material,
                    part.oriented && 'only one way round',
                    part.consumable && 'from the bottle',
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </li>
            ))}
          </ul>
        </Part>
        <Part title="Tools">
          <ul className="line-list">
            {model.tools.map((tool) => (
              <li key={tool.key}>
                <span className="grow">{tool.name}</span>
                <span className="second">{toolWords(tool)}</span>
              </li>
            ))}
          </ul>
        </Part>
      </div>
    </div>
  )
}

function Tasks({ model }: { model: PumpModel }) {
  return (
    <ul className="plain-list">
      {model.tasks.map((task) => (
        <li key={task.key} className="task-line">
          <details>
            <summary>
              <span className="task-head">
                <span>
                  <span className="strong">{task.name}</span>{' '}
                  <span className="second">
                    {task.at ? nameIn(model.access, task.at) : 'nothing to open'}
                  </span>
                </span>{' '}
                <span className="nowrap">{limitWords(task, model.usage)}</span>{' '}
                <span className="second nowrap">{minutesWords(task)}</span>
              </span>
            </summary>
            <div className="node-details">
              {task.qualification && (
                <p>For somebody {qualificationNames[task.qualification]}, by local codes.</p>
              )}
              <p className="second">
                {taskKindNames[task.kind]} ·{' '}
                {task.positions.map((key) => nameIn(model.positions, key)).join(', ')}
              </p>
              <ModelSteps steps={task.steps} model={model} />
              {task.paths.map((path) => (
                <div key={path.key}>
                  <h3>
                    {path.name}{' '}
                    <span className="second">
                      {path.minutes} min more ·{' '}
                      {path.renews === 'always' ? 'a new life begins' : 'reuse restarts nothing'}
                      {path.practice &&
                        ` · by practice: ${choiceName(path.practice.key, path.practice.choice).toLowerCase()}`}
                    </span>
                  </h3>
                  <ModelSteps steps={path.steps} model={model} />
                </div>
              ))}
            </div>
          </details>
        </li>
      ))}
    </ul>
  )
}

function Positions({ model }: { model: PumpModel }) {
  return (
    <Table className="plain">
      <TableBody>
        {model.zones.map((zone) =>
          model.positions
            .filter((position) => position.zone === zone.key)
            .map((position, index) => (
              <TableRow key={position.key}>
                <TableCell className="second">{index === 0 ? zone.name : ''}</TableCell>
                <TableCell>
                  {position.name} <span className="second">{position.synonyms.join(', ')}</span>
                </TableCell>
                <TableCell className="second">
                  {position.part && nameIn(model.parts, position.part)}
                </TableCell>
                <TableCell className="num nowrap">
                  {countWords(model, position.repeat, position.pieces)}
                </TableCell>
              </TableRow>
            )),
        )}
      </TableBody>
    </Table>
  )
}

function countWords(model: PumpModel, repeat: string | null, pieces: number): string {
  const found = model.repeats.find((each) => each.key === repeat)
  const each = pieces === 1 ? '' : showNumber(pieces)
  return found ? `${found.count} × ${each || 1}` : each || '1'
}

function toolWords(tool: PumpModel['tools'][number]): string {
  return [
    tool.special && 'special',
    tool.temporary && 'goes in, counted back',
    tool.removalOnly && 'for removal only',
    tool.contingency && 'in case it is needed',
    tool.torqueWrench && 'by the register of tools',
  ]
    .filter(Boolean)
    .join(', ')
}

function minutesWords({ minutes, paths }: Task): string {
  const [first] = paths
  return `${minutes + (first?.minutes ?? 0)} min each`
}

function limitWords({ limit }: Task, usage: string): string {
  const unit = usage === 'h' ? 'h' : 'strokes'
  const parts = [
    limit.hours === null ? '' : `${showNumber(limit.hours)}\u00a0${unit}`,
    limit.days === null ? '' : `${showNumber(limit.days)}\u00a0days`,
  ]
  const first = limit.firstHours === null ? '' : `, first ${showNumber(limit.firstHours)}\u00a0${unit}`
  return parts.filter(Boolean).join(' or ') + first
}
