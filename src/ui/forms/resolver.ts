import type { Schema } from 'joi'
import type { FieldErrors, FieldValues, Resolver } from 'react-hook-form'
import { checkOptions, fieldMessages } from '@/core/problem'

/** A core schema, by its name in `schemas.ts`. */
export type SchemaName = keyof typeof import('./schemas')

let loading: Promise<Record<SchemaName, Schema>> | null = null

/** The schemas, loaded once for a page. What could not be loaded is asked for again. */
export function loadSchemas(): Promise<Record<SchemaName, Schema>> {
  loading ??= import('./schemas').catch((error: unknown) => {
    loading = null
    throw error
  })
  return loading
}

/**
 * Checks a form with the core schema its service uses. What is handed on is what was typed: the
 * service checks and converts it from scratch, so nothing is converted twice. Where the schemas cannot be
 * loaded, because the server is away or is a newer one, the service alone checks.
 */
export function schemaResolver<Values extends FieldValues>(name: SchemaName): Resolver<Values> {
  return async (values) => {
    const schemas = await loadSchemas().catch(() => null)
    const error = schemas?.[name].validate(values, checkOptions).error
    if (!error) return { values, errors: {} }
    const errors: Record<string, unknown> = {}
    for (const [path, message] of Object.entries(fieldMessages(error)))
      place(errors, path.split('.'), message)
    return { values: {}, errors: errors as FieldErrors<Values> }
  }
}

function place(errors: Record<string, unknown>, path: string[], message: string): void {
  const [head = '', ...rest] = path
  if (rest.length === 0) {
    errors[head] = { type: 'schema', message }
    return
  }
  const inner = (errors[head] ??= {}) as Record<string, unknown>
  place(inner, rest, message)
}
