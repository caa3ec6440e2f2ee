/**
 * A path of our own to lead on to, or `/` for anything that might lead elsewhere: an address of another
 * site would make our page a springboard. Browsers drop tabs and line ends from an address and take
 * backslashes for slashes, so neither is taken.
 *
 * @example ownPath('/fleet/T-04?x=1') // '/fleet/T-04?x=1'
 * @example ownPath('/\t/elsewhere.example') // '/'
 */
export function ownPath(path: unknown): string {
  if (typeof path !== 'string' || path.length > 500 || !/^\/(?![/\\])[^\p{Cc}\\]*$/u.test(path)) return '/'
  const here = 'http://here.invalid'
  try {
    return new URL(path, here).origin === here ? path : '/'
  } catch {
    return '/'
  }
}
