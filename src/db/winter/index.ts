export {
  antifreezes,
  wetCircuits,
  winterEvents,
  winterTerms,
  yardClimates,
  yardOutlooks,
  type AntifreezeRow,
  type TermsValues,
  type WetCircuitRow,
  type WinterEventRow,
  type YardClimateRow,
  type YardOutlookRow,
} from './winter'
