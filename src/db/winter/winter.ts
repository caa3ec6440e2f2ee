import type {
  AntifreezeInput,
  CircuitInput,
  OutlookDay,
  PlacesInput,
  Threshold,
  ToldEvent,
  WinterTermsInput,
} from '@/core/winter'
import { id, json, longText, orNull, real, retirable, table, text, whole, type RowOf } from '../house'

/** The frost of a yard, under the yard's id: its minima as they were imported, or what somebody knows by heart. */
export const yardClimates = table('yard_climates', {
  id,
  /** Tenths of °C from a first day on; null where one is missing. */
  minima: json<{ from: string; tenths: (number | null)[] } | null>(),
  fileName: text(),
  entered: json<{ thresholds: Threshold[]; designLowC: number | null } | null>(),
  stands: json<PlacesInput>(),
  heatedSpace: whole<0 | 1>(),
  recordedAt: text(),
  recordedById: orNull(text()),
  version: whole(),
})
export type YardClimateRow = RowOf<typeof yardClimates>

/** What the weather service told last, under the yard's id. */
export const yardOutlooks = table('yard_outlooks', {
  id,
  source: text(),
  issuedAt: text(),
  fetchedAt: text(),
  days: json<OutlookDay[]>(),
  trouble: text(),
})
export type YardOutlookRow = RowOf<typeof yardOutlooks>

export type TermsValues = Omit<WinterTermsInput, 'version' | 'hourCost' | 'protectorCost'> & {
  hourCents: number
  protectorCents: number
}
/** One row: how this company goes about its winter. */
export const winterTerms = table('winter_terms', {
  id,
  values: json<TermsValues>(),
  recordedAt: text(),
  version: whole(),
})

export const antifreezes = table('antifreezes', {
  id,
  name: text(),
  fluid: text<AntifreezeInput['fluid']>(),
  sold: text<AntifreezeInput['sold']>(),
  contentPercent: orNull(real()),
  freezesAtC: orNull(real()),
  burstsAtC: orNull(real()),
  packLitres: real(),
  packCents: whole(),
  /** The part of the stores that it is. */
  partId: orNull(text()),
  note: longText(),
  ...retirable,
})
export type AntifreezeRow = RowOf<typeof antifreezes>

/** The water side of a machine, under the machine's id; none where nobody has looked at the template. */
export const wetCircuits = table('wet_circuits', {
  id,
  elements: json<CircuitInput['elements']>(),
  methods: json<CircuitInput['methods']>(),
  turning: text<CircuitInput['turning']>(),
  fuelTankLitres: orNull(real()),
  evening: text<CircuitInput['evening']>(),
  eveningReason: text(),
  recordedAt: text(),
  recordedById: orNull(text()),
  version: whole(),
})
export type WetCircuitRow = RowOf<typeof wetCircuits>

/** What happened to a machine in winter, as a sheet or a person told it. */
export const winterEvents = table(
  'winter_events',
  {
    id,
    machineId: text(),
    at: text(),
    event: json<ToldEvent>(),
    sheetId: orNull(text()),
    recordedAt: text(),
    recordedById: orNull(text()),
  },
  'machineId',
)
export type WinterEventRow = RowOf<typeof winterEvents>
