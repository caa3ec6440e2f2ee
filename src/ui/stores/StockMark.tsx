import { showAmount, type StockLine } from '@/core/stores'
import { PostMark } from '../graphics/PostMark'

/** What wants doing about a part, worst first, in a mark and in words. */
export function StockMark({ part }: { part: StockLine }) {
  if (part.retiredOn) return <span className="second">retired</span>
  if (part.short > 0)
    return (
      <span className="mark-line">
        <PostMark state="doubted" size={16} silent />
        <span className="oxide strong">
          Count this bin
          <span className="second block">
            {showAmount(part.short, part.unit)} more used than the book had
          </span>
        </span>
      </span>
    )
  if (part.missing > 0)
    return (
      <span className="mark-line">
        <PostMark state={part.tooLate ? 'atRisk' : 'waiting'} size={16} silent />
        <span className={part.tooLate ? 'oxide strong' : 'brass strong'}>
          {showAmount(part.missing, part.unit)} missing
          <span className="second block">
            {part.tooLate ? 'would come after the visit' : 'ordered today, it comes in time'}
          </span>
        </span>
      </span>
    )
  if (part.below)
    return (
      <span className="mark-line">
        <PostMark state="dueSoon" size={16} silent />
        <span className="brass strong">Below its minimum</span>
      </span>
    )
  return (
    <span className="mark-line">
      <PostMark state="done" size={16} silent />
      <span className="second">enough</span>
    </span>
  )
}
