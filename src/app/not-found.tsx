import { ButtonLink } from '@/ui/frame/ButtonLink'
import { EmptyState } from '@/ui/feedback/States'

export default function NotFound() {
  return (
    <main className="page" id="content">
      <EmptyState
        title="This page does not exist"
        action={<ButtonLink href="/fleet">Go to the fleet</ButtonLink>}
      >
        The machine or pump may have been renumbered, or the address was mistyped. Search the fleet for it.
      </EmptyState>
    </main>
  )
}
