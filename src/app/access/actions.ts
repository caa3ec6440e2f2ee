'use server'

import { redirect } from 'next/navigation'
import type { SetUpInput } from '@/core/company'
import type { SignInInput } from '@/core/people'
import type { Outcome } from '@/core/problem/outcome'
import { signIn as checkSignIn } from '@/services/sessions'
import { setUp as setUpCompany } from '@/services/setUp'
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
