/** What a meter counts. Stroke counters have no 24-hours-a-day limit. */
export type MeterUnit = 'h' | 'strokes'

/** The face of a meter: how many whole digits it shows (null: not known) and how many decimals. */
export type MeterFace = { unit: MeterUnit; digits: number | null; decimals: number }

/** A reading in the meter's unit. Only accepted readings drive anything. */
export type Reading = { id: string; at: string; value: number }

/** A stretch in which the machine stands; without an end it goes on. Instants, not days. */
export type Standing = { from: string; to: string | null }

/**
 * Something that happened to the counter itself. After a change the new meter starts at `firstValue`;
 * `lastValue` is what the old one showed when it was taken off (null: not noted). After a roll-over the
 * counter went through zero and `span` is what it counts in one turn (10 to the number of digits).
 */
export type MeterEvent =
  | {
      kind: 'change'
      id: string
      at: string
      lastValue: number | null
      firstValue: number
      /** Nobody read the old meter: `lastValue` is what it will have shown by its usual use. */
      assumed?: boolean
    }
  | { kind: 'rollOver'; id: string; at: string; span: number }
