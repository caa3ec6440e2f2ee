export const endReasons = {
  preventive: 'Renewed in time',
  failed: 'It had failed',
  disturbed: 'Came out for another job',
  unknown: 'Not known',
} as const

export const isBlank = (value: unknown) => value == null || value === ''
