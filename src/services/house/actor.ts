import 'server-only'
import { mayDo, permissions, roleNames, type Permission, type Role } from '@/core/access'
import { notAllowed } from '@/core/problem'

/** Who is acting. Every service function that reads or writes a company's data asks for one first. */
export type Actor = { id: string; name: string; role: Role }

/** @throws a problem of kind `notAllowed` that says what the role may not do and who may */
export function requirePermission(actor: Actor, permission: Permission): void {
  if (mayDo(actor.role, permission)) return
  throw notAllowed(`${roleNames[actor.role]}s cannot ${permissions[permission]}. Ask a coordinator.`)
}
