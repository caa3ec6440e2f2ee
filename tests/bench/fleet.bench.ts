import { rmSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import { closeDatabase, database } from '@/db/house'
import { listAssemblies } from '@/services/fleet'
import { getMachine, listMachines } from '@/services/fleet'
import { recordReading } from '@/services/hours'
import { listWear } from '@/services/wear'
import { largeCompany, measure } from './largeCompany'

/** Milliseconds of what is asked most; the bare driver's time to read the same rows stands beside them. */
async function main() {
  const { actor, folder, meterIds } = await largeCompany()
  const rows =
    'SELECT id, "meterId", at, raw, decimals FROM readings WHERE status = \'accepted\' ORDER BY "meterId", at'
  await measure('bare driver: read all readings', () => database().query(rows, { raw: true }))
  await measure('list the fleet', () => listMachines(actor))
  await measure('list pumps with their hours', () => listAssemblies(actor))
  const lifeRows = 'SELECT * FROM lives'
  await measure('bare driver: read all lives', () => database().query(lifeRows, { raw: true }))
  await measure('the clocks of every position', () => listWear(actor))
  await measure('the same again, nothing written since', () => listWear(actor))
  await recordReading(actor, {
    id: uuid(),
    meterId: meterIds[8]!,
    day: new Date().toISOString().slice(0, 10),
    time: '00:00',
    typed: '8999',
    readBy: '',
    note: '',
    vouched: true,
  })
  await measure('the same after one reading, other forecasts kept', () => listWear(actor))
  await measure('open one machine', () => getMachine(actor, 'M-7'))
  await measure('record one reading', () =>
    recordReading(actor, {
      id: uuid(),
      meterId: meterIds[8]!,
      day: new Date().toISOString().slice(0, 10),
      time: '00:01',
      typed: '9000',
      readBy: '',
      note: '',
      vouched: true,
    }),
  )
  await measure('50 readings at once, on 50 machines', () =>
    Promise.all(
      meterIds.slice(100, 150).map((meterId) =>
        recordReading(actor, {
          id: uuid(),
          meterId,
          day: '2026-01-02',
          time: '00:01',
          typed: '5000',
          readBy: '',
          note: '',
          vouched: true,
        }),
      ),
    ),
  )
  await closeDatabase()
  rmSync(folder, { recursive: true, force: true })
}

main().catch((error: unknown) => {
  console.error(error)
  process.exit(1)
})
