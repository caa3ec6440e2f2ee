'use client'

import { Button } from '@/ui/frame/Button'
import { EmptyState } from '@/ui/feedback/States'

export default function PageError({ retry }: { error: unknown; retry: () => void }) {
  return (
    <main className="page" id="content">
      <EmptyState
        title="This page could not be shown"
        action={
          <Button variant="contained" onClick={() => retry()}>
            Try again
          </Button>
        }
      >
        Something went wrong on our side. Nothing was changed by looking at it; the console of the server says
        more.
      </EmptyState>
    </main>
  )
}
