import type { Section } from '../graphics/SectionIcon'

/** One way into the application, as the rail and the bar of a phone show it. */
export type RailSection = {
  section: Section
  label: string
  href: string
  count?: number
  countMeans?: string
  /** On a phone it stands under More: this role seldom needs it there. */
  folded?: boolean
}
