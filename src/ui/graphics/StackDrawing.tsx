import { orientationWords, type StackItem } from '@/core/models'

type Props = { stack: StackItem[]; partName: (key: string) => string; name: string }

/**
 * What lies in a bore, innermost at the left, as it goes in: each piece with its name and which way it
 * faces. The arrow points to where it is opened from.
 */
export function StackDrawing({ stack, partName, name }: Props) {
  return (
    <ol className="stack-drawing" aria-label={`${name}: what lies in the bore, innermost first`}>
      {stack.map(({ part, pieces, orientation, note }, index) => (
        <li key={`${part} ${index}`}>
          <span className="stack-number">{index + 1}</span>
          <span className="strong">
            {pieces > 1 && `${pieces} × `}
            {partName(part)}
          </span>
          {orientation && <span className="stack-way">{orientationWords(orientation)}</span>}
          {note && <span className="second">{note}</span>}
        </li>
      ))}
    </ol>
  )
}
