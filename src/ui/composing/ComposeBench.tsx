'use client'

import { useDeferredValue, useMemo, useState } from 'react'
import {
  composeSheet,
  offersFor,
  savingOfBundling,
  usualPositions,
  type ChosenTask,
  type Offer,
  type ComposePage,
} from '@/core/composing'
import { splitInstance, titleOf, type PositionKey, type PumpModel } from '@/core/models'
import type { WearView } from '@/core/wear'
import { EmptyState } from '../feedback/States'
import { unpack, type Packed } from '../frame/packed'
import { Part } from '../frame/Page'
import { StackDrawing } from '../graphics/StackDrawing'
import { BookComposed, type Booking } from './BookComposed'
import { CheapNow } from './CheapNow'
import { ComposeChoice } from './ComposeChoice'
import { ComposedFasteners } from './ComposedFasteners'
import { ComposedParts } from './ComposedParts'
import { ComposedPractices } from './ComposedPractices'
import { ComposedSteps } from './ComposedSteps'
import { ComposedTools } from './ComposedTools'
import { Totals } from './Totals'
import './composing.css'

type Props = {
  pump: { id: string; number: string }
  packed: Packed<{ page: ComposePage; wear: WearView }>
  today: string
  /** Null for who may not plan. */
  booking: Booking | null
}

/**
 * Composing on one pump: what is chosen at the left, and at once what it makes: minutes, what the open
 * pump makes cheap, steps, parts, tools, torques, cautions. Nothing is kept until it is booked.
 */
export function ComposeBench({ pump, packed, today, booking }: Props) {
  const { page, wear } = unpack(packed)
  const { model, practices } = page
  const [tasks, setTasks] = useState<ChosenTask[]>([])
  const chosen = useDeferredValue(tasks)
  const input = useMemo(
    () => ({ assemblies: [{ id: pump.id, model, tasks: chosen, facts: page.facts }] }),
    [pump.id, model, chosen, page.facts],
  )
  const sheet = useMemo(() => composeSheet(input, practices), [input, practices])
  const saving = useMemo(() => savingOfBundling(input, practices), [input, practices])
  const offers = useMemo(() => offersFor(input, practices), [input, practices])
  const positionsFor = (key: string): PositionKey[] => {
    const due = wear.clocks.filter((clock) => clock.task === key && clock.state !== 'healthy')
    return usualPositions(
      model,
      model.tasks.find((each) => each.key === key)!,
      due.flatMap((clock) => clock.positions),
      practices,
    )
  }
  const change = (task: string, next: Omit<ChosenTask, 'task'> | null) =>
    setTasks((before) => {
      const others = before.filter((each) => each.task !== task)
      return next === null || next.positions.length === 0 ? others : [...others, { task, ...next }]
    })
  const add = (offer: Offer) => {
    const before = tasks.find((each) => each.task === offer.task)
    change(offer.task, {
      path: before?.path ?? null,
      positions: [...(before?.positions ?? []), ...offer.positions],
    })
  }

  return (
    <div className="compose">
      <div className="compose-choice panel">
        <ComposeChoice
          model={model}
          wear={wear}
          practices={practices}
          today={today}
          tasks={tasks}
          change={change}
          positionsFor={positionsFor}
        />
      </div>
      {chosen.length === 0 ? (
        <EmptyState title="Choose what is to be done">
          Tick services at the left. What they make together stands here at once: steps, minutes, parts, tools
          and torques, and what the open pump makes cheap to do with it.
        </EmptyState>
      ) : (
        <div className="stack" aria-live="polite">
          <Totals sheet={sheet} saving={saving} model={model}>
            {booking && <BookComposed pump={pump} tasks={tasks} booking={booking} today={today} />}
          </Totals>
          <CheapNow offers={offers} model={model} wear={wear} add={add} />
          <div className="compose-columns">
            <Part title="Parts to lay ready" aside="counted once where it is the same piece">
              <ComposedParts sheet={sheet} page={page} />
            </Part>
            <Part title="Tools" aside="from the register">
              <ComposedTools sheet={sheet} page={page} today={today} />
            </Part>
          </div>
          <Part title="Torque" aside="the order is drawn; wrenches from the register">
            <ComposedFasteners pump={pump} sheet={sheet} page={page} today={today} />
          </Part>
          <Stacks model={model} opened={sheet.opened} />
          <Part title="Cautions" aside="each stands again at its step">
            <ul aria-label="Cautions">
              {sheet.cautions.map(({ words, where }) => (
                <li key={words} className="caution">
                  {words} <span className="second">{where}</span>
                </li>
              ))}
            </ul>
          </Part>
          <Part title="Practices that shape it" aside="the maker’s manual wins">
            <ComposedPractices practices={sheet.practices} />
          </Part>
          <Part title="Steps, in order" aside={`${sheet.steps.length} steps`}>
            <ComposedSteps pump={pump} sheet={sheet} page={page} />
          </Part>
          <p className="second">
            By version {page.modelVersion} of {titleOf(model)}. {model.notice}
          </p>
        </div>
      )}
    </div>
  )
}

/** What lies in the bores that are opened, each kind of bore once. */
function Stacks({ model, opened }: { model: PumpModel; opened: string[] }) {
  const keys = new Set(opened.map((key) => splitInstance(key).key))
  const nodes = model.access.filter((node) => keys.has(node.key) && node.stack.length > 0)
  if (nodes.length === 0) return null
  const partName = (key: string) => model.parts.find((part) => part.key === key)?.name ?? key
  return (
    <Part title="In the bores" aside="innermost first, as it goes in">
      {nodes.map((node) => (
        <div key={node.key}>
          <h3>{node.name}</h3>
          <StackDrawing stack={node.stack} partName={partName} name={node.name} />
          {node.bench.map((built) => (
            <p key={built.key} className="second">
              Built on the bench first, fitted as one: {built.name}
            </p>
          ))}
        </div>
      ))}
    </Part>
  )
}
