'use client'

import type { TodayRow } from '@/core/today'
import { type Shown } from './Line'
import { BundleRow } from './BundleRow'
import { SlipRow } from './SlipRow'
import { SignRow } from './SignRow'
import { VisitRow } from './VisitRow'
import { MachineRow } from './MachineRow'
import { CheckRow } from './CheckRow'
import { PartRow } from './PartRow'

/** One row of Today: what, why now, the one best action. */
export function Row(props: { row: TodayRow } & Omit<Shown<'bundle'>, 'row'>) {
  const { row, ...rest } = props
  switch (row.kind) {
    case 'bundle':
      return <BundleRow row={row} {...rest} />
    case 'slip':
      return <SlipRow row={row} {...rest} />
    case 'sign':
      return <SignRow row={row} {...rest} />
    case 'visit':
      return <VisitRow row={row} {...rest} />
    case 'doubt':
    case 'reading':
      return <MachineRow row={row} {...rest} />
    case 'earlyCheck':
      return <CheckRow row={row} {...rest} />
    case 'part':
      return <PartRow row={row} {...rest} />
  }
}
