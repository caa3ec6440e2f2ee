export { type PracticeChoiceRow, practiceChoices } from './practices'
