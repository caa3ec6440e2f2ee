/** The technician with the fewest visits on a day, by name where they are alike. */
export function leastBusy(
  people: { id: string; name: string; role: string; retiredOn: string | null }[],
  open: { leadId: string; day: string }[],
  day: string,
): string {
  const visits = (id: string) => open.filter((visit) => visit.leadId === id && visit.day === day).length
  const [first] = people
    .filter((person) => person.role === 'technician' && !person.retiredOn)
    .sort((a, b) => visits(a.id) - visits(b.id) || a.name.localeCompare(b.name))
  return first?.id ?? ''
}
