import fc from 'fast-check'
import { refusal, seenBy, sheetState, type SentEntry, type SheetEntry, type SheetState } from '@/core/sheets'
import { contentFor, madeSafe, nothing, restart, triplex } from './fixture'

/**
 * Tablets, a server and a bad line between them, by the rules that both go by: a tablet sends everything
 * that was not acknowledged, oldest first; the server keeps each entry once, in the order of arrival,
 * and judges it by what its tablet had seen.
 */
const content = contentFor(triplex, [{ task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2', 'hpSeal@3'] }])
const writing = { byName: 'M. Osei', now: '2026-10-14T08:00:00.000Z' }

class Server {
  entries: SheetEntry[]
  refused: string[] = []
  constructor(start: SheetEntry[]) {
    this.entries = [...start]
  }
  take(sent: SentEntry[]): string[] {
    for (const each of sent) {
      if (this.entries.some(({ id }) => id === each.id)) continue
      const words = refusal(sheetState(seenBy(this.entries, each))!, each, writing)
      if (words) {
        this.refused.push(words)
        continue
      }
      this.entries.push(asEntry(each, this.entries.length + 1))
    }
    return sent.map(({ id }) => id)
  }
}

function asEntry(sent: SentEntry, sequence: number): SheetEntry {
  return {
    ...sent,
    sequence,
    at: sent.deviceTime,
    byId: sent.deviceId,
    byName: 'M. Osei',
    late: false,
  } as SheetEntry
}

class Tablet {
  outbox: SentEntry[] = []
  private known: SheetEntry[]
  private seq = 0
  constructor(
    readonly id: string,
    start: SheetEntry[],
  ) {
    this.known = [...start]
  }
  get view(): SheetState {
    const mine = this.outbox
      .filter(({ id }) => !this.known.some((each) => each.id === id))
      .map((each) => asEntry(each, 1_000_000 + each.deviceSeq))
    return sheetState([...this.known, ...mine])!
  }
  write(kind: SentEntry['kind'], payload: unknown, stepKey: string | null) {
    const sent: SentEntry = {
      id: `${this.id}-${this.seq + 1}`,
      authorId: this.id,
      deviceId: this.id,
      deviceSeq: this.seq + 1,
      seenUpTo: Math.max(0, ...this.known.map(({ sequence }) => sequence)),
      deviceTime: '2026-10-14T08:00:00.000Z',
      stepKey,
      kind,
      payload,
    }
    if (refusal(this.view, sent, writing)) return
    this.seq += 1
    this.outbox.push(sent)
  }
  /** One exchange. What is lost on the way there or back is sent again next time. */
  exchange(server: Server, fate: Fate) {
    const sent = [...this.outbox]
    if (fate === 'lostThere') return
    const taken = server.take(sent)
    if (fate === 'twice') server.take(sent)
    if (fate === 'lostBack') return
    this.known = [...server.entries]
    this.outbox = this.outbox.filter(({ id }) => !taken.includes(id))
  }
}

type Fate = 'fine' | 'lostThere' | 'lostBack' | 'twice'
type Act = {
  tablet: number
  does: 'work' | 'remark' | 'finding' | 'takeBack' | 'send'
  fate: Fate
  pick: number
}

const acts = fc.array(
  fc.record({
    tablet: fc.nat({ max: 1 }),
    does: fc.constantFrom<Act['does'][]>(
      'work',
      'work',
      'work',
      'remark',
      'finding',
      'takeBack',
      'send',
      'send',
    ),
    fate: fc.constantFrom<Fate[]>('fine', 'fine', 'lostThere', 'lostBack', 'twice'),
    pick: fc.nat({ max: 5 }),
  }),
  { minLength: 10, maxLength: 60 },
)

function play(list: Act[], tablets: Tablet[], server: Server, fates: (act: Act) => Fate) {
  for (const act of list) {
    const tablet = tablets[act.tablet % tablets.length]!
    const { view } = tablet
    if (act.does === 'send') tablet.exchange(server, fates(act))
    else if (act.does === 'remark') tablet.write('remark', { text: `note ${act.pick}` }, null)
    else if (act.does === 'finding')
      tablet.write(
        'finding',
        {
          assemblyId: 'pump',
          position: `hpSeal@${(act.pick % 3) + 1}`,
          what: '',
          sort: 'seal',
          damages: act.pick > 2 ? ['glazed'] : [],
          extent: '',
          disposition: 'renew',
          words: '',
        },
        null,
      )
    else if (act.does === 'takeBack') {
      const ticked = view.steps.filter(({ by, step }) => by && step.phase !== 'makeSafe')
      const by = ticked[ticked.length - 1 - (act.pick % Math.max(1, ticked.length))]?.by
      if (by) tablet.write('takeBack', { of: by.id, reason: '' }, null)
    } else {
      const next = view.steps.find(({ state }) => state === 'open')
      if (!next) continue
      const stated = next.step.step.fastener
        ? { value: next.step.step.stage === 1 ? 20 : 40, unit: 'N·m' }
        : null
      tablet.write(
        'done',
        { ...nothing, torque: stated, answer: next.step.step.asks?.answers[0] ?? '', reason: 'as it was' },
        next.step.key,
      )
    }
  }
  for (const tablet of [...tablets, ...tablets]) tablet.exchange(server, 'fine')
}

/** What a sheet says, without the numbers by which its entries came in. */
const says = (state: SheetState) => ({
  steps: state.steps.map(({ step, state: is, rival }) => [step.key, is, rival !== null]),
  remarks: state.remarks.map(({ id }) => id).sort(),
  findings: state.findings.map(({ payload }) => [payload.position, payload.damages]).sort(),
  positions: state.positions.map(({ position, state: is }) => [position, is]),
})

const start = () => {
  restart()
  return madeSafe(content)
}

test('a tablet on a bad line ends where it would have ended on a good one; nothing is lost or doubled', () => {
  fc.assert(
    fc.property(acts, (list) => {
      const [bad, good] = [new Server(start()), new Server(start())]
      const [one, other] = [new Tablet('a', bad.entries), new Tablet('a', good.entries)]
      play(list, [one], bad, ({ fate }) => fate)
      play(list, [other], good, () => 'fine')
      expect([bad.refused, good.refused]).toEqual([[], []])
      expect(one.outbox).toEqual([])
      expect(new Set(bad.entries.map(({ id }) => id)).size).toBe(bad.entries.length)
      expect(says(sheetState(bad.entries)!)).toEqual(says(sheetState(good.entries)!))
    }),
    { numRuns: 60 },
  )
})

test('two tablets that hear of each other late agree with the server in the end, and refuse each other nothing', () => {
  fc.assert(
    fc.property(acts, (list) => {
      const server = new Server(start())
      const tablets = ['a', 'b'].map((id) => new Tablet(id, server.entries))
      play(list, tablets, server, ({ fate }) => fate)
      expect(server.refused).toEqual([])
      const truth = says(sheetState(server.entries)!)
      for (const tablet of tablets) {
        expect(tablet.outbox).toEqual([])
        expect(says(tablet.view)).toEqual(truth)
      }
    }),
    { numRuns: 60 },
  )
})

test('the state is a function of the set of entries: any order in the list, any entry twice', () => {
  fc.assert(
    fc.property(acts, fc.infiniteStream(fc.nat()), (list, random) => {
      const server = new Server(start())
      play(
        list,
        ['a', 'b'].map((id) => new Tablet(id, server.entries)),
        server,
        ({ fate }) => fate,
      )
      const jumbled = [...server.entries, ...server.entries.filter((_, index) => index % 3 === 0)]
        .map((each) => ({ each, key: random.next().value as number }))
        .sort((x, y) => x.key - y.key)
        .map(({ each }) => each)
      expect(sheetState(jumbled)).toEqual(sheetState(server.entries))
    }),
    { numRuns: 40 },
  )
})
