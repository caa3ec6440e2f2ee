'use client'

import type { ChangeEvent, ReactNode } from 'react'
import { SelectInput, TextInput } from '../forms/FieldFrame'

type Choice = {
  id: string
  label: string
  value: string
  onChange: (value: string) => void
  options: { value: string; label: string }[]
  placeholder?: string
}

type Props = {
  id: string
  label: string
  placeholder: string
  search: string
  onSearch: (search: string) => void
  choices: Choice[]
  /** How many rows are left, in words. */
  found: string
  children: ReactNode
}

/** A list with what narrows it above: a search from which the arrow key goes down into the rows. */
export function ListFilters({ id, label, placeholder, search, onSearch, choices, found, children }: Props) {
  return (
    <div data-list={id}>
      <div className="filters" role="search">
        <div className="search">
          <TextInput
            id={`${id}-search`}
            placeholder={placeholder}
            value={search}
            onChange={(event) => onSearch(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'ArrowDown') return
              event.preventDefault()
              event.currentTarget
                .closest('[data-list]')
                ?.querySelector<HTMLElement>('tbody tr[data-index] a')
                ?.focus()
            }}
            inputProps={{ 'aria-label': label, type: 'search' }}
          />
        </div>
        {choices.map((choice) => (
          <div key={choice.id}>
            <SelectInput
              id={`${id}-${choice.id}`}
              placeholder={choice.placeholder}
              value={choice.value}
              onChange={(event: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) =>
                choice.onChange(event.target.value)
              }
              options={choice.options}
              inputProps={{ 'aria-label': choice.label }}
            />
          </div>
        ))}
        <span className="second" role="status">
          {found}
        </span>
      </div>
      {children}
    </div>
  )
}

/** Whether a text holds every word that somebody looks for. */
export function holdsWords(text: string, search: string): boolean {
  const all = text.toLowerCase()
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => all.includes(word))
}
