import { check, Joi, problemOf } from '@/core/problem'

const schema = Joi.object({
  name: Joi.string().max(4).required().messages({ 'string.empty': 'Give it a name.' }),
  count: Joi.number().integer().min(2).required(),
  parts: Joi.array()
    .items(Joi.object({ hours: Joi.number().required().messages({ 'any.required': 'Say how long.' }) }))
    .max(2)
    .default([]),
  kind: Joi.valid('seal', 'valve').required(),
})
const good = { name: 'abc', count: 3, kind: 'seal' }

function fieldsOf(input: unknown): Record<string, string> {
  try {
    check(schema, input)
  } catch (error) {
    const problem = problemOf(error)
    if (problem?.kind === 'invalid') return problem.fields
    throw error
  }
  return {}
}

test('what is right comes back cleaned', () => {
  expect(check(schema, { ...good, count: '3' })).toEqual({ ...good, parts: [] })
})

test.each([
  ['a field’s own words', { ...good, name: '' }, { name: 'Give it a name.' }],
  [
    'ours where it has none for this',
    { ...good, name: 'abcdef' },
    { name: 'At most 4 characters; this has 6.' },
  ],
  ['what is missing', { name: 'abc', kind: 'seal' }, { count: 'Fill this in.' }],
  ['no number', { ...good, count: 'many' }, { count: 'Enter a number.' }],
  ['no whole number', { ...good, count: 2.5 }, { count: 'Enter a whole number.' }],
  ['too small', { ...good, count: 1 }, { count: 'Enter 2 or more.' }],
  ['none of those offered', { ...good, kind: 'hose' }, { kind: 'Choose one of the values offered.' }],
  ['deep inside, its own words', { ...good, parts: [{}] }, { 'parts.0.hours': 'Say how long.' }],
  ['deep inside, ours', { ...good, parts: [{ hours: 'x' }] }, { 'parts.0.hours': 'Enter a number.' }],
  [
    'more than a list takes',
    { ...good, parts: [{ hours: 1 }, { hours: 1 }, { hours: 1 }] },
    { parts: 'At most 2 of these.' },
  ],
  ['what nobody asked for', { ...good, more: 1 }, { more: 'This is not expected here.' }],
  [
    'everything at once',
    { name: '', count: 1, kind: 1 },
    { name: 'Give it a name.', count: 'Enter 2 or more.', kind: 'Choose one of the values offered.' },
  ],
  ['nothing at all', undefined, { '': 'Fill this in.' }],
])('%s', (_, input, fields) => {
  expect(fieldsOf(input)).toEqual(fields)
})
