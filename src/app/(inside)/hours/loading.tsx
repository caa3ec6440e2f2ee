import { LoadingState } from '@/ui/feedback/States'

export default function Loading() {
  return (
    <main className="page" id="content">
      <LoadingState what="the round" />
    </main>
  )
}
