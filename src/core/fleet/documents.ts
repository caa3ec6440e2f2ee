/** Larger files are refused, in bytes. */
export const largestDocument = 25_000_000

export type DocumentInput = { id: string; machineId: string; name: string }

export type DocumentView = {
  id: string
  version: number
  name: string
  photo: boolean
  bytes: number
  by: string
  day: string
}

/**
 * What a file is by its first bytes, whatever it is called; null for what is neither photo nor PDF.
 * @example kindOfFile(new Uint8Array([0x25, 0x50, 0x44, 0x46, 0x2d])) // 'pdf'
 */
export function kindOfFile(bytes: Uint8Array): 'photo' | 'pdf' | null {
  const starts = (...wanted: number[]) => wanted.every((byte, index) => bytes[index] === byte)
  if (starts(0x25, 0x50, 0x44, 0x46, 0x2d)) return 'pdf'
  const jpeg = starts(0xff, 0xd8, 0xff)
  const png = starts(0x89, 0x50, 0x4e, 0x47)
  const webp = starts(0x52, 0x49, 0x46, 0x46) && String.fromCharCode(...bytes.slice(8, 12)) === 'WEBP'
  return jpeg || png || webp ? 'photo' : null
}
