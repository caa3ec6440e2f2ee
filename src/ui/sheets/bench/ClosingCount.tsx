'use client'

import {
  borePieces,
  fateWords,
  keptSettings,
  temporaryTools,
  valvesBack,
  type SheetState,
  type Place,
} from '@/core/sheets'
import { Button } from '../../frame/Button'

type Props = {
  state: SheetState
  go: (to: Place) => void
  /** Valves said to be back in their own bores, by key. */
  ownBores: string[]
  setOwnBores: (keys: string[]) => void
}

/** Before proving: every temporary tool, every bore's pieces and every setting, with where it stands. */
export function ClosingCount({ state, go, ownBores, setOwnBores }: Props) {
  const valves = valvesBack(state)
  const tools = temporaryTools(state)
  const bores = borePieces(state).filter(({ pieces }) => pieces.length > 0)
  const settings = keptSettings(state)
  const rows = [
    ...tools.map((tool) => ({
      key: `tool ${tool.tool}`,
      what: tool.name,
      says: tool.isOut ? 'out again' : tool.out ? 'still in' : 'look that it is out',
      fine: tool.isOut,
      at: tool.out,
    })),
    ...bores.map((bore) => ({
      key: bore.step.step.key,
      what: bore.where,
      says: bore.counted
        ? fateWords(bore.pieces, (part) => bore.pieces.find((each) => each.part === part)?.name ?? part)
        : 'not counted back',
      fine: bore.counted,
      at: bore.step,
    })),
    ...settings.map((setting) => ({
      key: `setting ${setting.what}`,
      what: setting.what,
      says: setting.back === null ? `not put back to ${setting.noted}` : `put back: ${setting.back}`,
      fine: setting.back !== null,
      at: setting.at,
    })),
  ]
  if (rows.length + valves.length === 0)
    return (
      <p className="second">Nothing temporary went in and no bore was emptied: look once more yourself.</p>
    )
  return (
    <>
      <ul className="closing-count">
        {rows.map((row) => (
          <li key={row.key}>
            <svg
              width="18"
              height="18"
              viewBox="0 0 18 18"
              role="img"
              aria-label={row.fine ? 'accounted for' : 'open'}
            >
              {row.fine ? (
                <path d="m3 9.5 4 4 8-9" fill="none" stroke="var(--moss)" strokeWidth="2.2" />
              ) : (
                <path d="M9 2 17 16H1Z" fill="none" stroke="var(--oxide)" strokeWidth="2" />
              )}
            </svg>
            <span className="grow">
              <span className="strong">{row.what}</span>
              <span className="second block">{row.says}</span>
            </span>
            {!row.fine && row.at && (
              <button
                type="button"
                className="plain-button"
                onClick={() => go({ at: 'step', key: row.at!.step.key })}
              >
                Go there
              </button>
            )}
          </li>
        ))}
      </ul>
      {valves.length > 0 && (
        <fieldset className="answers own-bores">
          <legend className="second">Valves that go back: each in the bore it came from, no other</legend>
          {valves.map(({ key, name }) => (
            <Button
              key={key}
              variant={ownBores.includes(key) ? 'contained' : 'outlined'}
              aria-pressed={ownBores.includes(key)}
              onClick={() =>
                setOwnBores(
                  ownBores.includes(key) ? ownBores.filter((each) => each !== key) : [...ownBores, key],
                )
              }
            >
              {name}: its own
            </Button>
          ))}
        </fieldset>
      )}
    </>
  )
}
