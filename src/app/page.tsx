import { redirect } from 'next/navigation'
import { requireActor } from './access/session'

export default async function Start() {
  await requireActor()
  redirect('/today')
}
