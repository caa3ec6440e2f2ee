import type { Fit, StandsFor } from './schema'

type Part = { id: string; fits: Fit[]; insteadOf: StandsFor[] }

/** Whether an approval covers this place of this model. */
const approvedFor = ({ modelId, positions }: StandsFor, fit: Fit) =>
  modelId === null || (fit.modelId === modelId && (positions.length === 0 || positions.includes(fit.part)))

/**
 * What a part serves as: its own fits, and those of the parts that it is approved to stand for, on the models
 * and places that the approval is about. So a later number takes the place of one that is retired everywhere at once.
 *
 * @param partOf any part by its id, retired ones among them
 */
export function servesAs(part: Part, partOf: (id: string) => Part | undefined): Fit[] {
  if (part.insteadOf.length === 0) return part.fits
  const stood = part.insteadOf.flatMap((each) =>
    (partOf(each.partId)?.fits ?? []).filter((fit) => approvedFor(each, fit)),
  )
  const known = new Set(part.fits.map(({ modelId, part: key }) => `${modelId} ${key}`))
  return [...part.fits, ...stood.filter(({ modelId, part: key }) => !known.has(`${modelId} ${key}`))]
}
