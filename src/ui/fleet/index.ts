export type { Present } from './ReadingDialog'
export { verdictWords } from './verdicts'
