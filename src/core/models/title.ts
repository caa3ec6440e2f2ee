/** @example titleOf({ maker: 'Ostrel', name: 'P3-200' }) // 'Ostrel P3-200' */
export function titleOf({ maker, name }: { maker: string; name: string }): string {
  return `${maker} ${name}`
}
