// The files that take longest are begun first: one of them left for the end would have one core work alone.
// By size, as Jest goes where nothing is known yet, they are short: they have the servers and pages do the work.
import { statSync } from 'node:fs'
import path from 'node:path'

const longest = [
  'e2e/access',
  'e2e/benchKinds',
  'e2e/bench',
  'e2e/sheets',
  'e2e/winter',
  'e2e/fleet',
  'e2e/kinds',
  'e2e/planning',
  'services/memory',
  'core/sheets/standstill',
  'core/plan/planVisits',
  'services/sheets',
  'services/benchWork',
  'services/records',
  'services/planning',
  'core/composing/laws',
]
const rank = ({ path: file }) => {
  const at = longest.findIndex((name) => file.endsWith(path.join('tests', `${name}.test.ts`)))
  return at < 0 ? longest.length : at
}
const size = ({ path: file }) => statSync(file).size

export default class Sequencer {
  sort(tests) {
    return [...tests].sort((a, b) => rank(a) - rank(b) || size(b) - size(a))
  }

  shard(tests) {
    return tests
  }

  allFailedTests(tests) {
    return tests
  }

  cacheResults() {}
}
