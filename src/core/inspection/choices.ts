export const signOutcomes = {
  mended: 'Seen to: it is mended',
  nothing: 'Looked at: nothing found',
  elsewhere: 'It came from somewhere else',
} as const
