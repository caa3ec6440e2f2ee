export { demoAccounts, offeredAccounts } from './demoMode'
export { addPerson, changeOwnPassword, listPeople, revokePerson, savePerson, setPersonLeft } from './people'
export {
  type SessionContent,
  actorOfSession,
  endSession,
  ownCookie,
  sessionCookie,
  sessionDays,
  sessionSecret,
  signIn,
  signOutEverywhere,
} from './sessions'
export { needsSetUp, setUp, setUpCode } from './setUp'
