import { addDays } from '@/core/calendar'
import type { SignInput } from '@/core/inspection'
import { type Actor, runAt, instantOf } from '@/services/house'
import { reportSign, settleSign, signsOf } from '@/services/inspection'
import { idOf } from './random'

type Story = Pick<SignInput, 'symptom' | 'words'> &
  Partial<SignInput> & { daysAgo: number; within: number; who: Actor }

/** What crews and technicians reported: a weep that brings one cylinder forward, a rattle nobody has looked at yet. */
export async function tellSigns(technicians: Actor[], today: string, timeZone: string): Promise<void> {
  const [osei, varga, brandt] = technicians as [Actor, Actor, Actor]
  const report = (key: string, { daysAgo, within, who, ...story }: Story) =>
    runAt(instantOf(addDays(today, -daysAgo), '07:40', timeZone), () =>
      reportSign(who, {
        id: idOf(`sign ${key}`),
        machineId: null,
        assemblyId: null,
        seenOn: addDays(today, -daysAgo),
        dripsPerMinute: null,
        flow: null,
        task: '',
        positions: [],
        sheetId: null,
        by: addDays(today, within - daysAgo),
        ...story,
      }),
    )
  await report('hard start', {
    who: brandt,
    daysAgo: 47,
    within: 7,
    machineId: idOf('V-11'),
    symptom: 'hardStart',
    words: 'Kicks back on the second pull',
  })
  await runAt(instantOf(addDays(today, -44), '16:20', timeZone), async () => {
    const [sign] = await signsOf(brandt, { machineId: idOf('V-11') })
    await settleSign(brandt, {
      id: sign!.id,
      version: sign!.version,
      outcome: 'elsewhere',
      words: 'Unloader tip was scaled up; cleaned, moves freely again',
    })
  })
  await report('weep', {
    who: osei,
    daysAgo: 2,
    within: 5,
    assemblyId: idOf('P-31'),
    symptom: 'weep',
    words: 'wet under cylinder 2 after the rinse line',
    dripsPerMinute: 12,
    task: 'lpSeals',
    positions: ['lpSeal@2'],
  })
  await report('rattle', {
    who: varga,
    daysAgo: 4,
    within: 3,
    assemblyId: idOf('P-37'),
    symptom: 'pulsing',
    words: 'Rattles when the tank is low, gauge swings 15 bar',
  })
}
