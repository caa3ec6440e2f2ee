export { type PersonRow, endedSessions, people } from './people'
