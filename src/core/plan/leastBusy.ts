type Person = { id: string; name: string; role: string; retiredOn: string | null }

/** Who can be given a visit, as a form lists them: everybody in service who does more than look. */
export function visitLeads(people: Person[]): { value: string; label: string }[] {
  return people
    .filter((person) => person.role !== 'viewer' && !person.retiredOn)
    .map((person) => ({ value: person.id, label: person.name }))
}

/** The technician with the fewest visits on a day, by name where they are alike. */
export function leastBusy(people: Person[], open: { leadId: string; day: string }[], day: string): string {
  const visits = (id: string) => open.filter((visit) => visit.leadId === id && visit.day === day).length
  const [first] = people
    .filter((person) => person.role === 'technician' && !person.retiredOn)
    .sort((a, b) => visits(a.id) - visits(b.id) || a.name.localeCompare(b.name))
  return first?.id ?? ''
}

/**
 * Who takes a visit of a yard on a day: of those who have the time for it one who starts from that yard, else anybody;
 * of these whoever has most time left. Where nobody has the time it is whoever has most.
 *
 * @param left minutes that a technician still has on that day
 * @returns null where there is no technician
 */
export function whoHasTime(
  crew: readonly { id: string; name: string; yardId: string | null }[],
  { yardId, minutes }: { yardId: string; minutes: number },
  left: (id: string) => number,
): string | null {
  const rank = (member: { id: string; yardId: string | null }) =>
    left(member.id) < minutes ? 2 : member.yardId === yardId ? 0 : 1
  const [first] = [...crew].sort(
    (a, b) => rank(a) - rank(b) || left(b.id) - left(a.id) || a.name.localeCompare(b.name),
  )
  return first?.id ?? null
}
