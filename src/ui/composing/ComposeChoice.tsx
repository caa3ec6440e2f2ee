'use client'

import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import Radio from '@mui/material/Radio'
import RadioGroup from '@mui/material/RadioGroup'
import { usualPath, type ChosenTask } from '@/core/composing'
import type { CompanyPractices } from '@/core/practices'
import {
  positionName,
  repeatName,
  splitInstance,
  titleOf,
  type PositionKey,
  type PumpModel,
  type Task,
} from '@/core/models'
import { positionsOf, type WearView } from '@/core/wear'
import { inSentence } from '@/core/units'
import { PostMark } from '../graphics/PostMark'
import { leftWords } from '../wear'

type Props = {
  model: PumpModel
  wear: WearView
  practices: CompanyPractices
  today: string
  tasks: ChosenTask[]
  change: (task: string, next: Omit<ChosenTask, 'task'> | null) => void
  positionsFor: (task: string) => PositionKey[]
}

/** The services of the pump, each with how it stands, its positions and its ways of doing it. */
export function ComposeChoice({ model, wear, practices, today, tasks, change, positionsFor }: Props) {
  return (
    <fieldset className="plain-fieldset">
      <legend className="panel-pad">
        <span className="strong">Services</span> <span className="second">{titleOf(model)}</span>
      </legend>
      {model.tasks.map((task) => {
        const chosen = tasks.find((each) => each.task === task.key)
        return (
          <div key={task.key} className="compose-task">
            <FormControlLabel
              label={task.name}
              control={
                <Checkbox
                  size="small"
                  checked={chosen !== undefined}
                  onChange={() =>
                    change(task.key, chosen ? null : { positions: positionsFor(task.key), path: null })
                  }
                />
              }
            />
            <DueWords task={task} wear={wear} today={today} />
            {chosen && (
              <>
                <PositionTicks model={model} task={task} chosen={chosen} change={change} />
                <PathChoice
                  task={task}
                  chosen={chosen}
                  change={change}
                  present={usualPath(model, task, practices)}
                />
              </>
            )}
          </div>
        )
      })}
    </fieldset>
  )
}

function DueWords({ task, wear, today }: { task: Task; wear: WearView; today: string }) {
  const [worst] = wear.clocks.filter((clock) => clock.task === task.key)
  if (!worst) return null
  return (
    <span className="second due-words">
      <PostMark state={worst.state === 'over' ? 'overdue' : worst.state} size={14} silent />
      {worst.where && `${worst.where}: `}
      {leftWords(worst, wear.unit, today)}
    </span>
  )
}

function PositionTicks({
  model,
  task,
  chosen,
  change,
}: Pick<Props, 'model' | 'change'> & { task: Task; chosen: ChosenTask }) {
  const all = positionsOf(model, task)
  if (all.length < 2) return null
  return (
    <div className="compose-inner" role="group" aria-label={`Positions of ${inSentence(task.name)}`}>
      {all.map((position) => (
        <FormControlLabel
          key={position}
          label={shortName(model, task, position)}
          control={
            <Checkbox
              size="small"
              checked={chosen.positions.includes(position)}
              onChange={(event) =>
                change(task.key, {
                  ...chosen,
                  positions: all.filter((each) =>
                    each === position ? event.target.checked : chosen.positions.includes(each),
                  ),
                })
              }
            />
          }
        />
      ))}
    </div>
  )
}

function shortName(model: PumpModel, task: Task, instance: PositionKey): string {
  const { key, index } = splitInstance(instance)
  const repeat = model.positions.find((each) => each.key === key)?.repeat
  return task.positions.length > 1 || !repeat || index === null
    ? positionName(model, instance)
    : repeatName(model, repeat, index)
}

function PathChoice({
  task,
  chosen,
  change,
  present,
}: Pick<Props, 'change'> & { task: Task; chosen: ChosenTask; present: string }) {
  if (task.paths.length < 2) return null
  return (
    <RadioGroup
      className="compose-inner"
      aria-label={`Way of doing: ${inSentence(task.name)}`}
      value={chosen.path ?? present}
      onChange={(event) => change(task.key, { ...chosen, path: event.target.value })}
    >
      {task.paths.map((path) => (
        <FormControlLabel
          key={path.key}
          value={path.key}
          control={<Radio size="small" />}
          label={
            <>
              {path.name}
              {path.key === present && <span className="second"> our practice</span>}
            </>
          }
        />
      ))}
    </RadioGroup>
  )
}
