'use client'

import type { VerdictKind } from '@/core/hours'
import { Button } from '../frame/Button'
import { EmptyState, LoadingState, Note } from '../feedback/States'
import { useConfirm } from '../forms/Confirm'
import { useToast } from '../feedback/Toasts'
import { ChoiceEntry, FieldRow, QuantityEntry, RadioEntry, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import { FormPart } from '../forms/FormPart'
import { Facts, Page, Part } from '../frame/Page'
import type { ClockState } from '@/core/wear'
import { HoursChart } from '../graphics/HoursChart'
import { LifeStrip } from '../graphics/LifeStrip'
import { PositionGrid } from '../graphics/PositionGrid'
import { postMarkWords, Status, type PostMarkState } from '../graphics/PostMark'
import { ReadingBand } from '../graphics/ReadingBand'
import { SectionIcon, type Section } from '../graphics/SectionIcon'
import { DataTable } from '../table/DataTable'
import { ThemeChoice } from '../theme/ThemeChoice'

const colours = [
  'ground',
  'panel',
  'ink',
  'muted',
  'line',
  'edge',
  'petrol',
  'petrol-tint',
  'oxide',
  'oxide-ink',
  'oxide-tint',
  'brass',
  'brass-ink',
  'brass-tint',
  'moss',
  'moss-ink',
  'moss-tint',
  'frost',
  'frost-ink',
]
const sections: Section[] = [
  'today',
  'hours',
  'fleet',
  'plan',
  'sheets',
  'stores',
  'winter',
  'evidence',
  'models',
  'settings',
]
const bands: [VerdictKind, number, number | null][] = [
  ['fits', 4835, null],
  ['high', 4868, null],
  ['slip', 48350, 4835],
  ['impossible', 4700, null],
]
const line = Array.from({ length: 12 }, (_, week) => ({
  at: new Date(Date.UTC(2026, 6, 22 + week * 7)).toISOString(),
  hours: 4600 + week * 21 + (week % 3) * 4,
  source: 'reading' as const,
}))
const strips: [ClockState, number][] = [
  ['healthy', 0.5],
  ['dueSoon', 0.95],
  ['over', 1.06],
  ['overdue', 1.25],
]
const cell = (position: string, state: ClockState, used: number, was: number | null = null) => ({
  position,
  state,
  used,
  was,
  limit: 800,
  early: 0.1,
  assumed: false,
})
const sampleGrid = [
  {
    zone: 'Seal case',
    rows: [
      {
        key: 'hpSeal',
        name: 'High-pressure seal',
        limit: 800,
        cells: [
          cell('hpSeal@1', 'overdue', 946),
          cell('hpSeal@2', 'dueSoon', 752),
          cell('hpSeal@3', 'healthy', 212, 634),
        ],
      },
    ],
  },
]

/** Solid has happened, outline is open, hatch is expected or not available, dashed is proposed, the post is a limit. */
export function Styleguide() {
  const toast = useToast()
  const confirm = useConfirm()
  return (
    <Page
      title="Styleguide"
      summary="Every piece of the interface, in both themes."
      actions={<ThemeChoice />}
    >
      <div className="columns even">
        <div className="stack">
          <Part title="Colours" aside="marks for shapes, inks for words">
            <div className="specimens">
              {colours.map((colour) => (
                <span
                  key={colour}
                  className="swatch"
                  style={{ '--swatch': `var(--${colour})` } as React.CSSProperties}
                >
                  {colour}
                </span>
              ))}
            </div>
          </Part>
          <Part title="Type">
            <h1>Page title 24/32</h1>
            <h2>Section 14/24</h2>
            <p>
              Body 13/18 with <span className="strong">a key word</span> and 1&nbsp;148&nbsp;h
            </p>
            <p className="second">Second line, labels, notes 12/16</p>
          </Part>
          <Part title="Status" aside="always in words too">
            <div className="specimens">
              {(Object.keys(postMarkWords) as PostMarkState[]).map((state) => (
                <Status key={state} state={state} />
              ))}
            </div>
          </Part>
          <Part title="Sections">
            <div className="specimens">
              {sections.map((section) => (
                <span key={section} className="mark-line">
                  <SectionIcon section={section} /> {section}
                </span>
              ))}
            </div>
          </Part>
          <Part title="Buttons" aside="one filled button a screen">
            <div className="specimens">
              <Button variant="contained">Filled</Button>
              <Button variant="outlined">Outlined</Button>
              <Button variant="text">Text</Button>
              <Button variant="contained" disabled>
                Disabled
              </Button>
            </div>
          </Part>
          <Part title="Answers">
            <div className="specimens">
              <Button
                variant="outlined"
                onClick={() => toast('T-04 is retired.', () => toast('T-04 is back in service.'))}
              >
                Toast with undo
              </Button>
              <Button
                variant="outlined"
                onClick={() =>
                  confirm({
                    title: 'Retire T-04?',
                    consequence: 'It leaves every list of work. Its record stays.',
                    action: 'Retire T-04',
                    reason: 'Why?',
                    run: async () => undefined,
                  })
                }
              >
                Confirmation
              </Button>
            </div>
          </Part>
          <Part title="Notes">
            <div className="stack-tight">
              <Note>Plain.</Note>
              <Note tone="oxide" title="One reading is in doubt.">
                Hours stand on the last good one.
              </Note>
              <Note tone="brass" title="High.">
                4 800 to 4 850 would be usual.
              </Note>
              <Note tone="moss">Done.</Note>
            </div>
          </Part>
        </div>
        <div className="stack">
          <Part title="Reading band" aside="post: last reading, hatch: expected">
            {bands.map(([kind, value, suggestion]) => (
              <ReadingBand
                key={kind}
                previous={4812}
                low={4820}
                high={4850}
                value={value}
                suggestion={suggestion}
                kind={kind}
                says={kind}
              />
            ))}
          </Part>
          <Part title="Life strip" aside="post: the limit, hatch: the early tolerance">
            <div className="specimens">
              {strips.map(([state, share]) => (
                <LifeStrip
                  key={state}
                  state={state}
                  share={share}
                  early={0.1}
                  says={`${state}, ${share} of the limit`}
                />
              ))}
            </div>
          </Part>
          <Part title="Position grid">
            <PositionGrid grid={sampleGrid} columns={['cylinder 1', 'cylinder 2', 'cylinder 3']} unit="h" />
          </Part>
          <Part title="Hours chart">
            <HoursChart
              points={line}
              doubts={[{ at: '2026-10-13T08:00:00.000Z', value: 48000 }]}
              corrected={[]}
              events={[{ at: '2026-09-10T08:00:00.000Z', words: 'new meter', strong: true }]}
              spells={[{ kind: 'layUp', fromDay: '2026-10-20', toDay: '2026-10-26', what: 'winter' }]}
              ahead={{
                addedWithin: (days) => ({ mean: 3 * days, low: 2 * days, high: 4 * days }),
                limits: [
                  {
                    key: 'sample',
                    hours: line.at(-1)!.hours + 90,
                    early: '2026-11-03',
                    median: '2026-11-12',
                    late: '2026-11-25',
                  },
                ],
              }}
              unit="h"
              today="2026-10-14"
            />
          </Part>
          <Part title="Table">
            <DataTable
              caption="Sample"
              rows={[
                { name: 'T-04', hours: 5246.8 },
                { name: 'V-11', hours: 1191 },
              ]}
              rowKey={(row) => row.name}
              columns={[
                {
                  name: 'Machine',
                  by: (row) => row.name,
                  cell: (row) => <span className="strong">{row.name}</span>,
                },
                { name: 'Hours', numeric: true, by: (row) => row.hours, cell: (row) => row.hours },
              ]}
            />
          </Part>
          <Part title="Facts">
            <Facts
              facts={[
                ['Storage', 'Outdoors'],
                ['Hose', '60 m, 10 mm bore'],
              ]}
            />
          </Part>
          <EntryForm
            schema="sampleSchema"
            values={{ text: '', choice: 'a', amount: { value: '200', unit: 'bar' }, way: 'one' }}
            action={async () => ({ ok: true, data: undefined })}
            onDone={() => toast('Saved.')}
            submit="Save"
          >
            <FormPart title="Form" about="Label above, then the control, then its hint or what is wrong.">
              <FieldRow>
                <TextEntry name="text" label="Text" hint="A hint" />
                <ChoiceEntry name="choice" label="Choice" options={[{ value: 'a', label: 'First' }]} />
                <QuantityEntry name="amount" label="Quantity" dimension="pressure" />
              </FieldRow>
              <RadioEntry
                name="way"
                label="Choice among few"
                options={[
                  { value: 'one', label: 'One' },
                  { value: 'other', label: 'The other' },
                ]}
              />
            </FormPart>
          </EntryForm>
          <EmptyState title="Nothing yet">Says what to do first.</EmptyState>
          <LoadingState what="machines" rows={3} />
        </div>
      </div>
    </Page>
  )
}
