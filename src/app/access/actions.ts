'use server'

import { redirect } from 'next/navigation'
import type { SetUpInput } from '@/core/house'
import type { SignInInput } from '@/core/access'
import type { Outcome } from '@/core/problem'
import { signIn as checkSignIn, setUp as setUpCompany } from '@/services/access'
import { answer } from './act'
import { addressOfRequest, closeSession, openSession } from './session'

export async function signIn(input: SignInInput): Promise<Outcome> {
  return answer(async () => {
    await openSession(await checkSignIn(input, await addressOfRequest()))
    return { ok: true, data: undefined }
  })
}

export async function setUp(input: SetUpInput): Promise<Outcome> {
  return answer(async () => {
    await openSession(await setUpCompany(input, await addressOfRequest()))
    return { ok: true, data: undefined }
  })
}

export async function signOut(): Promise<void> {
  await closeSession()
  redirect('/sign-in')
}
