import { showDay, showFarDay } from '@/core/calendar'
import { showNumber } from '@/core/units'
import type { ClockView } from '@/core/wear'
import { stateWords } from './words'

export type Figure = { term: string; value: string; from: string }

/** Every figure behind a due day, each with what it was made from, in the order it is worked out. */
export function figuresOf(clock: ClockView, unit: string, today: string): Figure[] {
  const day = (value: string | null) => (value === null ? 'not in sight' : showFarDay(value, today))
  const amount = (value: number) => `${showNumber(Math.round(value * 10) / 10)}\u00a0${unit}`
  const percent = (share: number) => `${showNumber(Math.round(share * 1000) / 10)}\u00a0%`
  const figures: (Figure | null)[] = [
    {
      term: 'Counts since',
      value: `${showDay(clock.since.day, today)}${clock.assumed ? ', assumed' : ''}`,
      from: clock.since.first ? 'the first interval after fitting' : '',
    },
    clock.hoursLimit === null
      ? null
      : {
          term: 'Used',
          value: amount(clock.hoursUsed),
          from: `the pump’s counter now ${amount(clock.usageNow)}, then ${amount(clock.since.usage)}`,
        },
    clock.hoursLimit === null
      ? null
      : { term: 'Limit by hours', value: amount(clock.hoursLimit), from: limitFrom(clock, amount, percent) },
    clock.daysLimit === null
      ? null
      : {
          term: 'Limit by days',
          value: `${showNumber(clock.daysLimit)} days`,
          from: `${showNumber(clock.daysUsed)} days gone by; a lay-up does not stop them`,
        },
    {
      term: 'Used share',
      value: percent(clock.share),
      from: `by ${clock.by}${clock.hoursLimit !== null && clock.daysLimit !== null ? ', the further of the two' : ''}`,
    },
    {
      term: 'Tolerance',
      value: `${percent(clock.early)} early, ${percent(clock.late)} late`,
      from: 'due soon inside the one, overdue past the other',
    },
    {
      term: 'Use to come',
      value: clock.perDay === null ? 'nothing counts it' : `about ${amount(clock.perDay)} a day`,
      from: clock.perDay === null ? 'only its days run' : 'from its readings, lay-ups and booked jobs',
    },
    ...clock.signs.map((sign) => ({
      term: 'Sign',
      value: `to be seen to by ${showDay(sign.by, today)}`,
      from: sign.words,
    })),
    {
      term: 'Due day',
      value: day(clock.aboutDay),
      from:
        clock.firstBy === 'sign'
          ? 'brought forward by a sign'
          : clock.firstBy === null
            ? ''
            : `the limit by ${clock.firstBy} is reached first, as likely as not on this day`,
    },
    clock.band && {
      term: 'Band',
      value: `${day(clock.band.early)} to ${day(clock.band.late)}`,
      from: 'reached by then with 10 % and with 90 %',
    },
    clock.window && {
      term: 'Allowed window',
      value: `${day(clock.window.from)} to ${day(clock.window.to)}`,
      from: 'neither wasted life before it nor risk after it',
    },
    {
      term: 'Parts',
      value: clock.leadTime.parts.length === 0 ? 'all in the stores' : `${clock.leadTime.days} days to come`,
      from: clock.leadTime.parts.join(', '),
    },
    {
      term: 'Last responsible day',
      value: day(clock.lastResponsibleDay),
      from: clock.band
        ? `${showDay(clock.band.early, today)} less ${clock.leadTime.days} days for parts less ${clock.noticeDays} days’ notice`
        : '',
    },
    { term: 'State', value: stateWords[clock.state], from: '' },
  ]
  return figures.filter((figure) => figure !== null)
}

function limitFrom(
  clock: ClockView,
  amount: (value: number) => string,
  percent: (share: number) => string,
): string {
  const stated = clock.statedHours !== null && clock.factor < 1 ? `${amount(clock.statedHours)} × ` : ''
  const factors = clock.duties.map((duty) => `${percent(duty.factor)} ${duty.name.toLowerCase()}`).join(' × ')
  return (
    [
      stated && factors ? `${stated}${factors}` : '',
      clock.overrideReason && `its own limit: ${clock.overrideReason}`,
    ]
      .filter(Boolean)
      .join('; ') || 'as its model states'
  )
}
