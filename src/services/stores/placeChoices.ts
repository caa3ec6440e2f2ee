import 'server-only'
import { kept } from '@/db/house'
import { machines, yards } from '@/db/fleet'
import { meters } from '@/db/hours'
import { groupBy, type Actor } from '../house'

/** Where an assembly may go: machines in service with their meters, and yards with a shelf. */
export function listPlaceChoices(_actor: Actor) {
  return kept('place choices', loadPlaceChoices)
}

async function loadPlaceChoices() {
  const [machineRows, meterRows, yardRows] = await Promise.all([
    machines.all({ retiredOn: null }, [['number', 'ASC']]),
    meters.all({ retiredOn: null }, [['createdAt', 'ASC']]),
    yards.all({}, [['name', 'ASC']]),
  ])
  const metersOf = groupBy(meterRows, (meter) => meter.machineId)
  return {
    machines: machineRows.map((machine) => ({
      value: machine.id,
      label: `${machine.number} ${machine.name}`,
    })),
    meters: Object.fromEntries(
      machineRows.map((machine) => [
        machine.id,
        (metersOf.get(machine.id) ?? []).map((meter) => ({ value: meter.id, label: meter.name })),
      ]),
    ),
    yards: yardRows.map((yard) => ({ value: yard.id, label: yard.name })),
  }
}
