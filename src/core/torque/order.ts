/** A bolt's place on its plate, in any unit of length; `number` is the maker's. */
export type Bolt = { id: string; x: number; y: number; number?: number }

export type OrderPattern = 'crissCross' | 'centreOut' | 'asNumbered'

export type OrderOptions = {
  /** Tighten the first one again at the end. */
  retapFirst?: boolean
}

/**
 * The order in which to tighten the bolts of a plate.
 *
 * `crissCross` takes bolts ring by ring from the middle (a circle of bolts is one ring), `centreOut` pair
 * by pair outwards along the longer side; within a ring the next bolt is the one that brings the centroid
 * of the tightened ones nearest to the plate's middle, then the one farthest from those already
 * tightened; of equals, on a circle the farthest from the last, on a plate the nearest to reach. Each
 * ring begins at its upper left. `asNumbered` follows the maker's numbers.
 *
 * @param bolts at least one, with different ids
 * @returns their ids, each once; with `retapFirst` the first again at the end
 * @example tighteningOrder(twoByFour, 'crissCross') // top row 5 1 4 7, bottom row 8 3 2 6
 */
export function tighteningOrder(
  bolts: Bolt[],
  pattern: OrderPattern,
  { retapFirst = false }: OrderOptions = {},
): string[] {
  const order = inPattern(bolts, pattern)
  const [first] = order
  return [...order, ...(retapFirst && first ? [first] : [])].map((bolt) => bolt.id)
}

function inPattern(bolts: Bolt[], pattern: OrderPattern): Bolt[] {
  if (pattern === 'asNumbered')
    return bolts
      .map((bolt, index) => ({ bolt, number: bolt.number ?? index + 1 }))
      .sort((a, b) => a.number - b.number)
      .map(({ bolt }) => bolt)
  const middle = centroid(bolts)
  const wide = spread(bolts, 'x') >= spread(bolts, 'y')
  const far = (bolt: Bolt) =>
    pattern === 'crissCross'
      ? Math.hypot(bolt.x - middle.x, bolt.y - middle.y)
      : Math.abs(wide ? bolt.x - middle.x : bolt.y - middle.y)
  return ringsOf(bolts, far).reduce<Bolt[]>((done, ring) => balanced(ring, done, middle), [])
}

/** Bolts about as far from the middle as each other, nearest ring first. */
function ringsOf(bolts: Bolt[], far: (bolt: Bolt) => number): Bolt[][] {
  const size = Math.max(...bolts.map(far), 0)
  const rings: Bolt[][] = []
  for (const bolt of [...bolts].sort((a, b) => far(a) - far(b))) {
    const ring = rings.at(-1)
    if (ring && far(bolt) - far(ring[0]!) <= 0.15 * size) ring.push(bolt)
    else rings.push([bolt])
  }
  // Highest first and then from the left, so that the first of a ring is always the same.
  return rings.map((ring) => ring.sort((a, b) => tidy(b.y - a.y) || tidy(a.x - b.x)))
}

/** Without the dust of sines and cosines. */
const tidy = (difference: number) => (Math.abs(difference) < 1e-6 ? 0 : difference)

function balanced(ring: Bolt[], done: Bolt[], middle: { x: number; y: number }): Bolt[] {
  const order = [...done]
  const left = [...ring]
  // Round a circle a near one is a neighbour of the last: the farthest of equals. The few of a plate's
  // ring are all far enough apart, and the wrench takes the nearest.
  const far = ring.length > 4 ? -1 : 1
  while (left.length > 0) {
    const last = order.at(-1)
    const cost = (bolt: Bolt) => {
      const after = centroid([...order, bolt])
      const nearest = Math.min(...order.map((other) => apart(other, bolt)), Infinity)
      return [
        Math.hypot(after.x - middle.x, after.y - middle.y),
        -nearest,
        last && left.length < ring.length ? far * apart(last, bolt) : 0,
      ] as const
    }
    const costs = new Map(left.map((bolt) => [bolt, cost(bolt)]))
    const [next] = left.toSorted((a, b) => {
      const [x, y] = [costs.get(a)!, costs.get(b)!]
      for (let at = 0; at < 3; at += 1) {
        const difference = x[at]! - y[at]!
        if (Math.abs(difference) > 1e-6) return difference
      }
      return left.indexOf(a) - left.indexOf(b)
    })
    order.push(next!)
    left.splice(left.indexOf(next!), 1)
  }
  return order
}

/**
 * How far an order lets the load wander: the largest distance of the tightened bolts' centroid from the
 * plate's middle after each pair, as a share of the outermost bolt's distance. 0 is perfect; going round
 * a circle of eight reaches 0.92.
 */
export function imbalance(bolts: Bolt[], order: string[]): number {
  const middle = centroid(bolts)
  const size = Math.max(...bolts.map((bolt) => apart(bolt, middle)), 0)
  if (size === 0) return 0
  const placed = [...new Set(order)].flatMap((id) => bolts.find((bolt) => bolt.id === id) ?? [])
  let worst = 0
  for (let pair = 2; pair <= placed.length; pair += 2)
    worst = Math.max(worst, apart(centroid(placed.slice(0, pair)), middle) / size)
  return worst
}

type Point = { x: number; y: number }

function centroid(points: Point[]): Point {
  const count = Math.max(points.length, 1)
  return {
    x: points.reduce((sum, point) => sum + point.x, 0) / count,
    y: points.reduce((sum, point) => sum + point.y, 0) / count,
  }
}

function apart(a: Point, b: Point): number {
  return Math.hypot(a.x - b.x, a.y - b.y)
}

function spread(points: Point[], axis: 'x' | 'y'): number {
  const values = points.map((point) => point[axis])
  return Math.max(...values, 0) - Math.min(...values, 0)
}
