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
