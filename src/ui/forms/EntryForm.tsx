'use client'

import { useEffect, useId, useState, type ReactNode } from 'react'
import { FormProvider, useForm, type DefaultValues, type FieldValues, type Path } from 'react-hook-form'
import type { Outcome, Problem, StaleEdit } from '@/core/problem'
import { Button } from '../frame/Button'
import { Note } from '../feedback/States'
import { holdUnsaved } from '../frame/unsaved'
import { loadSchemas, schemaResolver, type SchemaName } from './resolver'

type Props<Values extends FieldValues, Result> = {
  schema: SchemaName
  values: Values
  /** Saves; problems come back as values and are shown beside their fields. */
  action: (values: Values) => Promise<Outcome<Result>>
  onDone: (result: Result, typed: Values) => void
  submit: string
  cancel?: ReactNode
  children: ReactNode
  /** Stands below the buttons. */
  after?: ReactNode
  /** Field names as people read them, for the list of what somebody else changed. */
  fieldName?: (field: string) => string
  /** The row as it is now, turned into what the form holds. */
  fromRow?: (row: Record<string, unknown>) => Partial<Values>
}

/**
 * A form over one core schema: checked in the browser with the very schema that the service uses,
 * nothing typed is ever lost, and a stale edit can be merged with what somebody else changed.
 */
export function EntryForm<Values extends FieldValues, Result>(props: Props<Values, Result>) {
  const { schema, values, action, onDone, submit, cancel, children } = props
  const form = useForm<Values>({
    defaultValues: values as DefaultValues<Values>,
    resolver: schemaResolver<Values>(schema),
    // Not on blur: a message that appears then moves the button away from under the pointer.
    mode: 'onSubmit',
    reValidateMode: 'onChange',
  })
  const [general, setGeneral] = useState<{ tone: 'oxide' | 'moss'; words: string } | null>(null)
  const [stale, setStale] = useState<StaleEdit | null>(null)
  const id = useId()
  const { isSubmitting, isDirty } = form.formState

  // By the time that somebody has filled it in, what checks it is there.
  useEffect(() => void loadSchemas().catch(() => undefined), [])

  useEffect(() => {
    if (!isDirty) return
    const warn = (event: BeforeUnloadEvent) => event.preventDefault()
    const letGo = holdUnsaved(id)
    window.addEventListener('beforeunload', warn)
    return () => {
      letGo()
      window.removeEventListener('beforeunload', warn)
    }
  }, [isDirty, id])

  const send = form.handleSubmit(async (typed) => {
    setGeneral(null)
    setStale(null)
    let outcome: Outcome<Result>
    try {
      outcome = await action(typed)
    } catch {
      setGeneral({
        tone: 'oxide',
        words: 'Atelier could not be reached. What you typed is still here: try again in a moment.',
      })
      return
    }
    if (outcome.ok) {
      // Saved: leaving now loses nothing.
      form.reset(typed)
      onDone(outcome.data, typed)
    } else {
      showProblem(outcome.problem)
    }
  }, focusFirstError)

  function showProblem(problem: Problem | { kind: 'unforeseen'; message: string }) {
    if (problem.kind === 'conflict' && problem.stale) {
      setStale(problem.stale)
      return
    }
    if (problem.kind !== 'invalid') {
      setGeneral({ tone: 'oxide', words: problem.message })
      return
    }
    const homeless: string[] = []
    for (const [field, message] of Object.entries(problem.fields)) {
      const shown =
        document.getElementById(`${id}-${field}`) ?? document.querySelector(`[name="${CSS.escape(field)}"]`)
      if (shown) form.setError(field as Path<Values>, { message }, { shouldFocus: homeless.length === 0 })
      else homeless.push(message)
    }
    setGeneral(homeless.length > 0 ? { tone: 'oxide', words: homeless.join(' ') } : null)
  }

  function focusFirstError() {
    setTimeout(() => document.querySelector<HTMLElement>('form [aria-invalid="true"]')?.focus(), 0)
  }

  /** Takes over what the other person changed wherever it was not touched here. */
  function merge(edit: StaleEdit) {
    const theirs = props.fromRow?.(edit.current) ?? (edit.current as Partial<Values>)
    const dirty = form.formState.dirtyFields as Record<string, unknown>
    // A form that shows a row in its own words says which of its fields that is.
    for (const field of props.fromRow ? Object.keys(theirs) : edit.changed) {
      if (!(field in theirs) || dirty[field]) continue
      form.setValue(field as Path<Values>, theirs[field as keyof Values] as never)
    }
    form.setValue('version' as Path<Values>, edit.version as never)
    setStale(null)
    setGeneral({
      tone: 'moss',
      words: `${edit.by}’s changes are in the form now, and yours are kept. Look it over and save.`,
    })
  }

  const errorCount = Object.keys(form.formState.errors).length
  return (
    <FormProvider {...form}>
      <form noValidate onSubmit={(event) => void send(event)} className="entry-form" aria-busy={isSubmitting}>
        {children}
        {stale && (
          <Note tone="brass" title={`${stale.by} saved this while you were editing.`}>
            Changed meanwhile:{' '}
            {stale.changed.map((field) => props.fieldName?.(field) ?? field).join(', ') ||
              'nothing that shows here'}
            . Nothing of yours is saved yet, and nothing is lost.
            <div className="actions">
              <Button variant="outlined" onClick={() => merge(stale)}>
                Take those in and keep what I typed
              </Button>
            </div>
          </Note>
        )}
        {general && <Note tone={general.tone}>{general.words}</Note>}
        <div className="form-actions">
          <Button type="submit" variant="contained" disabled={isSubmitting}>
            {isSubmitting ? 'Saving …' : submit}
          </Button>
          {cancel}
          {errorCount > 0 && (
            <span className="second oxide" role="status">
              {errorCount === 1 ? 'One field needs another look.' : `${errorCount} fields need another look.`}
            </span>
          )}
        </div>
        {props.after}
      </form>
    </FormProvider>
  )
}
