import 'server-only'
import { refresh } from 'next/cache'
import { notFound as showNotFound } from 'next/navigation'
import { problemOf, type Outcome } from '@/core/problem'
import type { Actor } from '@/services/house'
import { currentActor } from './session'
import { aheadOfPages } from './turn'
import { unforeseenWords } from './unforeseen'

/**
 * Runs a service for whoever is signed in and answers with a value in every case: thrown messages do
 * not reach the browser in production. What nobody foresaw is logged and told in one plain sentence.
 */
export async function act<T>(work: (actor: Actor) => Promise<T>): Promise<Outcome<T>> {
  return look(async (actor) => {
    const data = await work(actor)
    // The page that asked is rendered anew in the same answer.
    refresh()
    return data
  })
}

/** The same for what only looks: the page stays as it is. */
export async function look<T>(work: (actor: Actor) => Promise<T>): Promise<Outcome<T>> {
  return answer(async () => {
    const actor = await currentActor()
    if (actor) return { ok: true, data: await work(actor) }
    const message = 'You have been signed out. Sign in again in another tab; what you typed stays here.'
    return { ok: false, problem: { kind: 'notAllowed', message } }
  })
}

export async function answer<T>(work: () => Promise<Outcome<T>>): Promise<Outcome<T>> {
  try {
    return await aheadOfPages(work)
  } catch (error) {
    const problem = problemOf(error)
    if (problem) return { ok: false, problem }
    return { ok: false, problem: { kind: 'unforeseen', message: unforeseenWords(error) } }
  }
}

/** What a page loads; what does not exist shows the page that says so. */
export async function load<T>(work: Promise<T>): Promise<T> {
  try {
    return await work
  } catch (error) {
    if (problemOf(error)?.kind === 'notFound') showNotFound()
    throw error
  }
}
