'use client'

import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useRouter } from 'next/navigation'
import { useEffect, useRef, useState } from 'react'
import { useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import {
  decisionTake,
  runningWords,
  showMinutes,
  visitNumber,
  type DecisionForm,
  type DecisionPage,
  type TakeInput,
  type WeighedDecision,
  type WeighInput,
} from '@/core/plan'
import { problemWords, type Outcome } from '@/core/problem'
import { showAmount } from '@/core/stores'
import { showMoney } from '@/core/units'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import { itemOf, ServiceChoice } from './ServiceChoice'

type Item = DecisionForm['items'][number]

const offline = 'Atelier could not be reached. Try again in a moment.'

export type DecideActions = {
  openDecision: (input: { machineId: string; visitId: string | null }) => Promise<Outcome<DecisionPage>>
  weighDecision: (input: WeighInput) => Promise<Outcome<WeighedDecision>>
  takePlan: (input: TakeInput) => Promise<Outcome<{ taken: number; back: TakeInput }>>
}

type Props = {
  /** The button that opens it. */
  label: string
  look?: 'outlined' | 'contained' | 'text'
  machineId: string
  /** The booked visit that is changed; null for a new one. */
  visitId?: string | null
  /** What is chosen at first: these; left out, what the visit has. */
  chosen?: Item[]
  currency: string
  actions: DecideActions
}

/**
 * One visit of a machine decided: its services, a day, a technician. The best place stands there already; what
 * another would break and cost is told before anything is stored. Services of other visits can be taken over.
 */
export function DecideVisit({ label, look, machineId, visitId = null, chosen, currency, actions }: Props) {
  const [page, setPage] = useState<DecisionPage | null>(null)
  const [first, setFirst] = useState<{
    actId: string
    values: DecisionForm
    weighed: WeighedDecision
  } | null>(null)
  const [busy, setBusy] = useState(false)
  const router = useRouter()
  const toast = useToast()
  const close = () => setFirst(null)

  async function open() {
    setBusy(true)
    try {
      const opened = await actions.openDecision({ machineId, visitId }).catch(() => null)
      if (!opened?.ok) return toast(opened ? problemWords(opened.problem) : offline)
      const visit = opened.data.visits.find(({ id }) => id === visitId)
      const items = opened.data.services
        .filter((service) =>
          chosen ? chosen.some((item) => shares(item, service)) : service.visitId === visitId,
        )
        .map(itemOf)
      const all = items.length > 0 ? items : (chosen ?? [])
      const isChosen = (service: DecisionPage['services'][number]) =>
        all.some((item) => isSame(item, itemOf(service)))
      const weighed = await actions
        .weighDecision({ machineId, visitId, day: null, leadId: null, items: all })
        .catch(() => null)
      if (!weighed?.ok) return toast(weighed ? problemWords(weighed.problem) : offline)
      const { best } = weighed.data
      // What is chosen stands first.
      const services = [...opened.data.services].sort((a, b) => Number(isChosen(b)) - Number(isChosen(a)))
      setPage({ ...opened.data, services })
      setFirst({
        // Sent once more after a cut connection, it is the same act.
        actId: uuid(),
        weighed: weighed.data,
        values: {
          on: visitId ?? '',
          day: best?.day ?? visit?.day ?? opened.data.today,
          leadId: best?.leadId ?? visit?.leadId ?? '',
          helperId: best?.helperId ?? '',
          items: all,
        },
      })
    } finally {
      setBusy(false)
    }
  }

  const title = page ? `${page.machine.number} ${page.machine.name}` : ''
  return (
    <>
      <Button variant={look ?? 'outlined'} onClick={() => void open()} disabled={busy}>
        {busy ? 'Looking for a day …' : label}
      </Button>
      <Dialog open={first !== null} onClose={close} maxWidth="md" fullWidth aria-label={`Visit of ${title}`}>
        <DialogTitle>
          {visitId === null ? `Book a visit: ${title}` : `Change the visit of ${title}`}
        </DialogTitle>
        <DialogContent>
          {page && first && (
            <EntryForm<DecisionForm, { taken: number; back: TakeInput; words: string }>
              schema="decisionSchema"
              values={first.values}
              action={async ({ on, day, leadId, helperId, items }) => {
                const visit = page.visits.find(({ id }) => id === on) ?? null
                const take = decisionTake(
                  first.actId,
                  { visit, day, leadId, helpers: helperId ? [helperId] : [], items },
                  page.visits,
                )
                const outcome = await actions.takePlan(take)
                const who = page.technicians.find(({ value }) => value === leadId)?.label ?? ''
                return outcome.ok
                  ? {
                      ...outcome,
                      data: { ...outcome.data, words: `Booked for ${showDay(day, page.today)}, ${who}.` },
                    }
                  : outcome
              }}
              onDone={({ back, words }) => {
                close()
                router.refresh()
                toast(words, async () => {
                  const undone = await actions.takePlan(back)
                  toast(undone.ok ? 'It is as it was.' : problemWords(undone.problem))
                  router.refresh()
                })
              }}
              submit={visitId === null ? 'Book it' : 'Change it'}
              cancel={
                <Button variant="outlined" onClick={close}>
                  Cancel
                </Button>
              }
            >
              <div className="decide">
                <div>
                  <ServiceChoice
                    clocks={page.services}
                    today={page.today}
                    beside={(service) => onWords(page, service.visitId, visitId)}
                  />
                  {page.pinned.map(({ number, day, says }) => (
                    <p key={number} className="second">
                      Visit {visitNumber(number)}, {showDay(day, page.today)}, keeps what it has: {says}.
                    </p>
                  ))}
                </div>
                <div>
                  {visitId === null && page.visits.length > 0 && <OnVisit page={page} />}
                  <FieldRow>
                    <TextEntry name="day" label="Day" type="date" autoFocus />
                    <ChoiceEntry
                      name="leadId"
                      label="Technician"
                      options={page.technicians}
                      placeholder="Choose a technician"
                    />
                  </FieldRow>
                  <Weighing
                    page={page}
                    first={first.weighed}
                    machineId={machineId}
                    visitId={visitId}
                    currency={currency}
                    weigh={actions.weighDecision}
                  />
                </div>
              </div>
            </EntryForm>
          )}
        </DialogContent>
      </Dialog>
    </>
  )
}

const shares = (item: Item, { assemblyId, task, positions, visitId }: DecisionPage['services'][number]) =>
  visitId === null &&
  item.assemblyId === assemblyId &&
  item.task === task &&
  item.positions.some((position) => positions.includes(position))

function onWords(page: DecisionPage, visitId: string | null, own: string | null): string {
  const visit = page.visits.find(({ id }) => id === visitId)
  return visit && visit.id !== own
    ? `on visit ${visitNumber(visit.number)}, ${showDay(visit.day, page.today)}`
    : ''
}

/** A visit of its own, or one that is booked for the machine already. */
function OnVisit({ page }: { page: DecisionPage }) {
  const { setValue, getValues } = useFormContext<DecisionForm>()
  const on = useWatch<DecisionForm, 'on'>({ name: 'on' })
  const before = useRef(on)
  useEffect(() => {
    if (before.current === on) return
    before.current = on
    const visit = page.visits.find(({ id }) => id === on)
    if (!visit) return
    const had = page.services.filter(({ visitId }) => visitId === on).map(itemOf)
    setValue('items', [
      ...getValues('items').filter((item) => !had.some((each) => isSame(each, item))),
      ...had,
    ])
    setValue('day', visit.day)
    setValue('leadId', visit.leadId)
  }, [on, page, setValue, getValues])
  return (
    <ChoiceEntry
      name="on"
      label="On"
      options={[
        { value: '', label: 'A visit of its own' },
        ...page.visits.map(({ id, number, day }) => ({
          value: id,
          label: `Visit ${visitNumber(number)}, ${showDay(day, page.today)}`,
        })),
      ]}
    />
  )
}

const isSame = (a: Item, b: Item) =>
  a.assemblyId === b.assemblyId && a.task === b.task && a.positions.join() === b.positions.join()

type WeighingProps = {
  page: DecisionPage
  first: WeighedDecision
  machineId: string
  visitId: string | null
  currency: string
  weigh: DecideActions['weighDecision']
}

/**
 * What is chosen, weighed anew a moment after each change. Only another choice, or a second try, gives an answer
 * up that is under way: a field that is left draws the form anew with the same choice.
 */
function useWeighing(first: WeighedDecision, chosen: WeighInput, weigh: DecideActions['weighDecision']) {
  const [weighed, setWeighed] = useState(first)
  const [asking, setAsking] = useState(false)
  const [fault, setFault] = useState('')
  const [tries, setTries] = useState(0)
  const key = JSON.stringify([chosen, tries])
  const answered = useRef(key)
  const latest = useRef({ chosen, weigh })
  useEffect(() => {
    latest.current = { chosen, weigh }
  })
  useEffect(() => {
    if (answered.current === key || latest.current.chosen.items.length === 0) return
    let over = false
    const timer = setTimeout(async () => {
      setAsking(true)
      const outcome = await latest.current.weigh(latest.current.chosen).catch(() => null)
      if (over) return
      answered.current = key
      setAsking(false)
      setFault(outcome?.ok ? '' : outcome ? problemWords(outcome.problem) : offline)
      if (outcome?.ok) setWeighed(outcome.data)
    }, 250)
    return () => {
      over = true
      clearTimeout(timer)
      setAsking(false)
    }
  }, [key])
  return { weighed, asking, fault, askAgain: () => setTries(tries + 1) }
}

/** What the decision takes, breaks and costs. */
function Weighing({ page, first, machineId, visitId, currency, weigh }: WeighingProps) {
  const { setValue } = useFormContext<DecisionForm>()
  const [items, day, leadId, helperId, on] = useWatch<
    DecisionForm,
    ['items', 'day', 'leadId', 'helperId', 'on']
  >({ name: ['items', 'day', 'leadId', 'helperId', 'on'] })
  const { weighed, asking, fault, askAgain } = useWeighing(
    first,
    {
      machineId,
      visitId: on || null,
      day: /^\d{4}-\d{2}-\d{2}$/.test(day) ? day : null,
      leadId: leadId || null,
      helperId: helperId || null,
      items,
    },
    weigh,
  )
  if (items.length === 0)
    return (
      <p className="second" role="status">
        No service is chosen yet.
      </p>
    )
  const { best, why, place, waits, minutes, minutesAlone, helperMinutes, parts } = weighed
  const nameOf = (id: string) => page.technicians.find(({ value }) => value === id)?.label ?? 'nobody'
  const isBest = best !== null && best.day === day && best.leadId === leadId
  const missing = parts.filter((part) => part.missing > 0)
  const now = page.visits.find(({ id }) => id === visitId)
  const stays = isBest && now?.day === day && now.leadId === leadId
  return (
    <div className="decide-weighed" role="status" aria-busy={asking}>
      {fault && (
        <p className="oxide">
          What is chosen now was not worked out: {fault} What stands here is for what was chosen before.{' '}
          <Button variant="text" onClick={askAgain}>
            Work it out again
          </Button>
        </p>
      )}
      {page.held && <p className="caution">{page.held}</p>}
      <p>
        <strong>Together {showMinutes(minutes)}</strong>
        {minutesAlone > minutes && (
          <>
            , one by one {showMinutes(minutesAlone)}: saves {showMinutes(minutesAlone - minutes)}
          </>
        )}
      </p>
      {helperMinutes > 0 && (
        <ChoiceEntry
          name="helperId"
          label={`Helps for ${showMinutes(helperMinutes)}`}
          options={page.technicians.filter(({ value }) => value !== leadId)}
          placeholder="Choose a second person"
        />
      )}
      {now && (
        <p className="second">
          Booked for {showDay(now.day, page.today)}, {nameOf(now.leadId)}.
        </p>
      )}
      {best === null ? (
        <p className="brass">No day in sight holds all of it. {why}</p>
      ) : isBest ? (
        <p className="moss">
          {stays
            ? 'It is on its best day already: no other one on which everything is there is cheaper.'
            : 'The cheapest day on which everything is there.'}
        </p>
      ) : (
        <p>
          Best: {showDay(best.day, page.today)}, {nameOf(best.leadId)}{' '}
          <Button
            variant="text"
            onClick={() => {
              setValue('day', best.day)
              setValue('leadId', best.leadId)
              setValue('helperId', best.helperId ?? '')
            }}
          >
            Take that
          </Button>
        </p>
      )}
      {place && runningWords(place.running, page.today) !== '' && (
        <p>{runningWords(place.running, page.today)}</p>
      )}
      {place && place.breaks.length > 0 && (
        <ul className="line-list">
          {place.breaks.map((words) => (
            <li key={words} className="oxide">
              {words}
            </li>
          ))}
        </ul>
      )}
      {place && !isBest && best !== null && place.cents !== 0 && (
        <p className="second">
          It costs {showMoney(Math.abs(place.cents), currency)} {place.cents > 0 ? 'more' : 'less'} than the
          best.
        </p>
      )}
      {missing.map((part) => (
        <p key={part.name} className="brass">
          {part.name}: {showAmount(part.missing, part.unit)} missing on that day
          {part.arrives && `, there by ${showDay(part.arrives, page.today)} if ordered today`}.
        </p>
      ))}
      {parts.length > 0 && missing.length === 0 && <p className="second">Every part is there by then.</p>}
      {waits && (
        <p>
          {waits.names.join('; ')} waits for parts until {showDay(waits.until, page.today)}. Without it the
          rest could be done on {showDay(waits.sooner, page.today)}.{' '}
          <Button
            variant="text"
            onClick={() => {
              const left = items.filter((item) => !waits.keys.includes(keyOf(item)))
              setValue('items', left)
              setValue('day', waits.sooner)
            }}
          >
            Leave it for later
          </Button>
        </p>
      )}
    </div>
  )
}

const keyOf = ({ assemblyId, task, positions }: Item) => [assemblyId, task, ...positions].join(' ')
