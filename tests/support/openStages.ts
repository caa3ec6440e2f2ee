export { openStages as default } from './stages'
