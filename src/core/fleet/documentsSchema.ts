import { Joi, id, line } from '../problem'
import type { DocumentInput } from './documents'

export const documentSchema = Joi.object<DocumentInput>({
  id: id().required(),
  machineId: id().required(),
  name: line(120).required().messages({ 'string.empty': 'The file has no name.' }),
})
