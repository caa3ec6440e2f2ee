import type { MachineInput } from '@/core/fleet'

/**
 * How a machine is used, for making up its history: hours on a working day, how many weekdays it works,
 * and what bends that over the year. All invented.
 */
export type Character = {
  hours: number
  days: number[]
  /** Factor by month, January first. */
  year?: number[]
  /** Jobs come in bursts of so many days with idle stretches between. */
  bursts?: { busy: number; idle: number }
  /** Laid up between these days every winter, as month-day. */
  laidUp?: [string, string]
}

const weekdays = [1, 2, 3, 4, 5]
const quietWinter = [0.4, 0.5, 0.9, 1, 1.1, 1.2, 1.1, 1, 1.1, 1.1, 0.9, 0.6]

export const characters = {
  steady: { hours: 4.6, days: weekdays },
  weekdayLight: { hours: 2.6, days: weekdays },
  seasonal: { hours: 5.2, days: weekdays, year: quietWinter },
  bursts: { hours: 8.5, days: [1, 2, 3, 4, 5, 6], bursts: { busy: 9, idle: 16 } },
  intermittent: { hours: 3.2, days: [2, 4] },
  nights: { hours: 6.4, days: [0, 1, 2, 3, 4] },
  laidUp: { hours: 4.8, days: weekdays, laidUp: ['11-18', '03-09'] },
  twoShifts: { hours: 9.5, days: [1, 2, 3, 4, 5, 6] },
} satisfies Record<string, Character>

export type DemoMachine = {
  number: string
  name: string
  kind: MachineInput['kind']
  yard: 'Harbour yard' | 'Upland yard'
  bay: string
  storage: MachineInput['storage']
  since: string
  drive: MachineInput['drive']
  driveName: string
  kW: number
  bar: number
  litresAMinute: number
  hose: [metres: number, boreMm: number]
  tank: number
  bypass: MachineInput['bypass']
  character: keyof typeof characters
  /** What the main meter showed when records began. */
  start: number
  /** Days since the newest reading, on the demo's first day. */
  lastRead: number
  /** The model of each pump, with its number, serial, hours when taken over and duty share. */
  pumps: [number: string, model: string, serial: string, hours: number | 'new' | 'unknown', share: number][]
  note?: string
  /** Digits of its main meter before the point, where it is not five. */
  digits?: number
  /** The meter was replaced by one that starts at zero, so many days before the demo's first day. */
  meterReplaced?: number
}

export const models = [
  ['Ostrel', 'P3-200', 'compact triplex, seals in the manifold'],
  ['Tarnwick', 'C5', 'compact triplex with built-in accessories'],
  ['Ostrel', 'P3-500', 'industrial triplex with cartridges and plates'],
  ['Tarnwick', 'H900', 'heavy process triplex'],
  ['Quillon', 'X2', 'small axial pump'],
  ['Tarnwick', 'K4', 'opposed-head cam pump'],
  ['Quillon', 'D35', 'diaphragm pump with hydraulic end'],
  ['Quillon', 'J60', 'waterjet cutting pump, direct drive'],
  ['Quillon', 'J90', 'waterjet cutting pump, intensifier'],
  ['Ostrel', 'M12', 'low-pressure chemical diaphragm pump'],
  ['Ostrel', 'P3-700', 'industrial triplex with cartridges and plates'],
  ['Quillon', 'U20', 'unloader with spring handle'],
  ['Ostrel', 'WL2', 'wet line: strainer, hoses, gun, nozzle, safety valve'],
  ['Vardle', 'P9', 'petrol engine, air-cooled'],
  ['Vardle', 'D22', 'diesel engine, two cylinders, water-cooled'],
  ['Vardle', 'M15', 'electric motor, three-phase, foot-mounted'],
  ['Ostrel', 'HB90', 'oil burner with its coil'],
] as const

export const machines: DemoMachine[] = [
  trailer('T-04', 'silo trailer', 'Harbour yard', '4', 'steady', 1180, 0, [
    ['P-04', 'Ostrel P3-200', '20917', 1046, 1],
  ]),
  trailer('T-07', 'quay trailer', 'Harbour yard', '7', 'seasonal', 1720, 1, [
    ['P-07', 'Ostrel P3-200', '20944', 1720, 1],
  ]),
  trailer('T-09', 'hull trailer', 'Harbour yard', '2', 'seasonal', 2240, 8, [
    ['P-09', 'Ostrel P3-500', '31108', 2105, 0.85],
  ]),
  trailer('T-10', 'ship-lift trailer', 'Harbour yard', '1', 'bursts', 860, 3, [
    ['P-10', 'Ostrel P3-500', '31120', 860, 0.85],
  ]),
  trailer('T-11', 'dock trailer', 'Harbour yard', '3', 'weekdayLight', 410, 2, [
    ['P-11', 'Ostrel P3-200', '21377', 'new', 1],
  ]),
  trailer('T-12', 'quarry trailer', 'Upland yard', '1', 'steady', 990, 4, [
    ['P-12', 'Ostrel P3-200', '20951', 990, 1],
  ]),
  trailer('T-14', 'road-paint trailer', 'Upland yard', '2', 'seasonal', 640, 1, [
    ['P-14', 'Tarnwick H900', '8804', 640, 0.9],
  ]),
  trailer('T-15', 'viaduct trailer', 'Upland yard', '3', 'bursts', 1490, 6, [
    ['P-15', 'Tarnwick H900', '8811', 'unknown', 0.9],
  ]),
  van('V-11', 'tram-depot van', 'Harbour yard', '11', 'nights', 300, 1, [
    ['P-21', 'Tarnwick C5', '44021', 'new', 1],
  ]),
  van('V-12', 'market van', 'Harbour yard', '12', 'weekdayLight', 1290, 9, [
    ['P-22', 'Tarnwick C5', '44022', 1290, 1],
  ]),
  {
    ...van('V-15', 'night van', 'Harbour yard', '15', 'nights', 5480, 2, [
      ['P-23', 'Tarnwick C5', '43870', 2210, 1],
    ]),
    meterReplaced: 154,
  },
  van('V-21', 'facade van', 'Upland yard', '5', 'weekdayLight', 620, 8, [
    ['P-24', 'Tarnwick C5', '44107', 620, 1],
  ]),
  van('V-22', 'stadium van', 'Upland yard', '6', 'intermittent', 1480, 3, [
    ['P-25', 'Tarnwick K4', '1270', 1480, 1],
  ]),
  van('V-24', 'school van', 'Upland yard', '7', 'intermittent', 380, 8, [
    ['P-26', 'Quillon X2', '77310', 'new', 1],
  ]),
  van('V-25', 'underpass van', 'Upland yard', '8', 'nights', 940, 1, [
    ['P-28', 'Tarnwick C5', '44190', 940, 1],
  ]),
  rig('R-03', 'rinse rig', 'Harbour yard', 'R3', 'steady', 1460, 1, [
    ['P-31', 'Ostrel P3-200', '21002', 1460, 0.8],
    ['P-32', 'Ostrel M12', '6110', 1460, 0.3],
  ]),
  rig('R-05', 'tank rinse rig', 'Harbour yard', 'R5', 'weekdayLight', 960, 12, [
    ['P-33', 'Quillon D35', '5208', 960, 0.8],
    ['P-34', 'Ostrel M12', '6127', 'unknown', 0.3],
  ]),
  rig('R-08', 'bin-wash rig', 'Upland yard', 'R8', 'laidUp', 3520, 15, [
    ['P-35', 'Quillon D35', '5188', 1840, 0.8],
    ['P-36', 'Ostrel M12', '6099', 1840, 0.3],
  ]),
  skid('S-02', 'hot-wash skid', 'Harbour yard', 'S2', 'seasonal', 2080, 2, [
    ['P-37', 'Ostrel P3-200', '20880', 2080, 1],
  ]),
  skid('S-03', 'depot skid', 'Upland yard', 'S3', 'laidUp', 760, 5, [
    ['P-38', 'Tarnwick C5', '44002', 760, 1],
  ]),
  cart('K-01', 'stairwell cart', 'Harbour yard', 'K', 'intermittent', 120, 4, [
    ['P-39', 'Quillon X2', '77254', 120, 1],
  ]),
  cart('K-02', 'platform cart', 'Upland yard', 'K', 'intermittent', 95, 1, [
    ['P-40', 'Quillon X2', '77260', 'new', 1],
  ]),
  table('C-01', 'steel cutting table', 'Upland yard', 'hall 1', 4210, 0, [
    ['P-51', 'Quillon J90', '301', 4210, 1],
  ]),
  {
    // An old counter of four digits: it has gone through zero since records began.
    ...table('C-02', 'stone cutting table', 'Upland yard', 'hall 2', 6030, 1, [
      ['P-52', 'Quillon J60', '318', 3300, 1],
    ]),
    digits: 4,
  },
]

/** Pumps that lie on a shelf when records begin. */
export const spares = [
  ['P-27', 'Ostrel P3-200', '20990', 310, 'Harbour yard', 'H-30'],
  ['P-29', 'Tarnwick C5', '44230', 'new', 'Upland yard', 'U-04'],
] as const

export const accessories = [
  ['A-01', 'unloader', 'T-04', 'Engine hours', 'Quillon U20'],
  ['A-02', 'chemical injector', 'V-11', 'Engine hours', ''],
  ['A-03', 'cutting head', 'C-02', 'Jet-on hours', ''],
] as const

/** What drives or heats some machines, written down as assemblies of their own; age as their machine's meter. */
export const drives = [
  ['E-04', 'engine', 'Vardle D22', 'T-04'],
  ['E-07', 'engine', 'Vardle D22', 'T-07'],
  ['E-11', 'engine', 'Vardle D22', 'T-11'],
  ['E-12', 'engine', 'Vardle D22', 'T-12'],
  ['E-21', 'engine', 'Vardle P9', 'V-11'],
  ['E-22', 'engine', 'Vardle P9', 'V-12'],
  ['E-23', 'engine', 'Vardle P9', 'V-15'],
  ['E-24', 'engine', 'Vardle P9', 'V-21'],
  ['E-28', 'engine', 'Vardle P9', 'V-25'],
  ['M-02', 'motor', 'Vardle M15', 'S-02'],
  ['M-03', 'motor', 'Vardle M15', 'S-03'],
  ['H-02', 'heater', 'Ostrel HB90', 'S-02'],
  ['H-03', 'heater', 'Ostrel HB90', 'S-03'],
] as const

type Pumps = DemoMachine['pumps']
type Yard = DemoMachine['yard']
type Use = DemoMachine['character']

function trailer(
  number: string,
  name: string,
  yard: Yard,
  bay: string,
  character: Use,
  start: number,
  lastRead: number,
  pumps: Pumps,
): DemoMachine {
  const heavy = pumps[0]![1] !== 'Ostrel P3-200'
  return {
    number,
    name,
    kind: 'trailer',
    yard,
    bay,
    character,
    start,
    lastRead,
    pumps,
    storage: yard === 'Harbour yard' ? 'outdoors' : 'indoorsUnheated',
    since: '2022-03-14',
    drive: 'diesel',
    driveName: heavy ? 'four-cylinder, water-cooled' : 'two-cylinder, water-cooled',
    kW: heavy ? 55 : 18,
    bar: heavy ? 500 : 200,
    litresAMinute: heavy ? 42 : 21,
    hose: [60, heavy ? 13 : 10],
    tank: 1000,
    bypass: 'tank',
  }
}

function van(
  number: string,
  name: string,
  yard: Yard,
  bay: string,
  character: Use,
  start: number,
  lastRead: number,
  pumps: Pumps,
): DemoMachine {
  return {
    number,
    name,
    kind: 'van',
    yard,
    bay,
    character,
    start,
    lastRead,
    pumps,
    storage: yard === 'Harbour yard' ? 'indoorsUnheated' : 'outdoors',
    since: '2023-05-02',
    drive: 'petrol',
    driveName: 'air-cooled',
    kW: 16,
    bar: 210,
    litresAMinute: 19,
    hose: [40, 8],
    tank: 400,
    bypass: 'tank',
  }
}

function rig(
  number: string,
  name: string,
  yard: Yard,
  bay: string,
  character: Use,
  start: number,
  lastRead: number,
  pumps: Pumps,
): DemoMachine {
  return {
    number,
    name,
    kind: 'chemicalRig',
    yard,
    bay,
    character,
    start,
    lastRead,
    pumps,
    storage: yard === 'Harbour yard' ? 'indoorsUnheated' : 'outdoors',
    since: '2021-09-20',
    drive: 'electric',
    driveName: '',
    kW: 7.5,
    bar: 120,
    litresAMinute: 30,
    hose: [30, 13],
    tank: 600,
    bypass: 'tank',
    note: 'Chemical side and high-pressure side are rinsed separately.',
  }
}

function skid(
  number: string,
  name: string,
  yard: Yard,
  bay: string,
  character: Use,
  start: number,
  lastRead: number,
  pumps: Pumps,
): DemoMachine {
  return {
    number,
    name,
    kind: 'hotWaterSkid',
    yard,
    bay,
    character,
    start,
    lastRead,
    pumps,
    storage: 'indoorsUnheated',
    since: '2020-11-09',
    drive: 'electric',
    driveName: '',
    kW: 11,
    bar: 180,
    litresAMinute: 17,
    hose: [30, 8],
    tank: 200,
    bypass: 'inlet',
    note: 'Inlet water up to 60 °C.',
  }
}

function cart(
  number: string,
  name: string,
  yard: Yard,
  bay: string,
  character: Use,
  start: number,
  lastRead: number,
  pumps: Pumps,
): DemoMachine {
  return {
    number,
    name,
    kind: 'cart',
    yard,
    bay,
    character,
    start,
    lastRead,
    pumps,
    storage: 'heated',
    since: '2024-02-12',
    drive: 'electric',
    driveName: '',
    kW: 3,
    bar: 140,
    litresAMinute: 9,
    hose: [15, 6],
    tank: 0,
    bypass: 'none',
  }
}

function table(
  number: string,
  name: string,
  yard: Yard,
  bay: string,
  start: number,
  lastRead: number,
  pumps: Pumps,
): DemoMachine {
  return {
    number,
    name,
    kind: 'cuttingTable',
    yard,
    bay,
    character: 'twoShifts',
    start,
    lastRead,
    pumps,
    storage: 'heated',
    since: '2019-06-03',
    drive: 'electric',
    driveName: '',
    kW: 37,
    bar: 3800,
    litresAMinute: 3.8,
    hose: [8, 2.4],
    tank: 0,
    bypass: 'none',
  }
}
