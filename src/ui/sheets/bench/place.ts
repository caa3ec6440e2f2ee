/** What the middle of the sheet shows: the meters, a step, the confirmation by name, or the end. */
export type Place = { at: 'meters' } | { at: 'step'; key: string } | { at: 'madeSafe' } | { at: 'end' }
