import { Joi } from '@/core/problem'

/**
 * The core schemas that forms are checked with. Taken together by `schemaResolver` when a form opens: a page is
 * read without them, and without the library that they are made with.
 */
export { newPersonSchema, passwordChangeSchema, personSchema, signInSchema } from '@/core/access'
export {
  assemblySchema,
  dutySchema,
  machineSchema,
  moveSchema,
  newAssemblySchema,
  newMachineSchema,
  pumpModelSchema,
  settleDoubtSchema,
  yardSchema,
} from '@/core/fleet'
export { meterSchema, readingSchema, settlementSchema, spellSchema } from '@/core/hours'
export { companySchema, setUpSchema } from '@/core/house'
export { earlyCheckSchema, settleSignSchema, signSchema } from '@/core/inspection'
export {
  bookingSchema,
  campaignBookingSchema,
  crewSchema,
  decisionSchema,
  feedSchema,
  handSchema,
  planTermsSchema,
  snoozeSchema,
  visitChangeSchema,
} from '@/core/plan'
export { practiceSchema } from '@/core/practices'
export { correctionSchema, signatureSchema, unplannedSheetSchema } from '@/core/sheets'
export {
  confirmSchema,
  countSchema,
  deliverySchema,
  endOldSchema,
  endOrderSchema,
  extendSchema,
  keepOldSchema,
  moveSchema as moveStockSchema,
  offerSchema,
  orderSchema,
  partSchema,
  receiptSchema,
  sendSchema,
  supplierSchema,
  vanSchema,
} from '@/core/stores'
export { toolSchema } from '@/core/tools'
export {
  clockStartSchema,
  dutiesSchema,
  limitSchema,
  movePartSchema,
  renewalSchema,
  takeOverSchema,
} from '@/core/wear'
export {
  antifreezeSchema,
  circuitSchema,
  frostNightSchema,
  winterNoteSchema,
  winterTermsSchema,
  yardClimateSchema,
} from '@/core/winter'

/** The form of the styleguide. */
export const sampleSchema = Joi.object({
  text: Joi.string().required(),
  choice: Joi.string().required(),
  amount: Joi.any(),
  way: Joi.string().required(),
})
