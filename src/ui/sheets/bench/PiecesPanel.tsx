'use client'

import { pieceFates, type BorePieces, type PieceFate } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { FieldFrame, TextInput } from '../../forms/FieldFrame'

type Props = { bore: BorePieces; fates: PieceFate[] | null; onChange: (fates: PieceFate[]) => void }

/** Everything that came out of a bore, and what becomes of it: renewed, back in, or written off. */
export function PiecesPanel({ bore, fates, onChange }: Props) {
  const now: PieceFate[] =
    fates ?? bore.pieces.map(({ part, pieces, fate, reason }) => ({ part, pieces, fate, reason }))
  const set = (index: number, change: Partial<PieceFate>) =>
    onChange(now.map((each, at) => (at === index ? { ...each, ...change } : each)))
  return (
    <table className="pieces">
      <caption className="visually-hidden">Pieces of {bore.where}</caption>
      <tbody>
        {bore.pieces.map((piece, index) => (
          <tr key={`${piece.part} ${index}`}>
            <th scope="row">
              {piece.of}&nbsp;{piece.name}
            </th>
            <td>
              <div className="piece-fates" role="group" aria-label={piece.name}>
                {(Object.keys(pieceFates) as PieceFate['fate'][]).map((fate) => (
                  <Button
                    key={fate}
                    variant={now[index]!.fate === fate ? 'contained' : 'outlined'}
                    aria-pressed={now[index]!.fate === fate}
                    onClick={() => set(index, { fate })}
                  >
                    {pieceFates[fate]}
                  </Button>
                ))}
              </div>
              {now[index]!.fate === 'writtenOff' && (
                <FieldFrame id={`piece-${index}`} label="Why, and what takes its place">
                  <TextInput
                    id={`piece-${index}`}
                    value={now[index]!.reason}
                    onChange={(event) => set(index, { reason: event.target.value })}
                  />
                </FieldFrame>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
