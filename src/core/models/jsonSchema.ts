import parse from 'joi-to-json'
import { pumpModelDataSchema } from './schema'

/** The JSON Schema (draft 7) of a pump model, generated from the schema that the parser itself uses. */
export function pumpModelJsonSchema(): Record<string, unknown> {
  return {
    $schema: 'http://json-schema.org/draft-07/schema#',
    title: 'Atelier pump model, format 1',
    ...(parse(pumpModelDataSchema, 'json') as Record<string, unknown>),
  }
}
