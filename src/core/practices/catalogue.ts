/** What a choice puts on a thread or seat, with the times of its product. */
export type Treats = {
  kind: 'threadLubricant' | 'threadlocker' | 'sealant' | 'dry'
  product: string
  amount: string
  setsMinutes: number
  curesMinutes: number
  /** What one application takes; 0 where nothing is put on. */
  takesMl: number
}

export type PracticeChoice = {
  key: string
  name: string
  reason: string
  /** Until the company enters what stands on its product's label, these hold. Ours. */
  treats?: Treats
}

/** A point where good workshops differ: the company chooses, and the maker's manual is above all. */
export type Practice = {
  key: string
  name: string
  /** What it is about, in one line. */
  about: string
  /** The default first. */
  choices: readonly PracticeChoice[]
  /** Every choice is an act of its own: a model that knows one of them has a step for each. */
  everyChoice?: boolean
}

const locker: Treats = {
  kind: 'threadlocker',
  product: 'medium',
  amount: 'one drop',
  setsMinutes: 10,
  curesMinutes: 1440,
  takesMl: 0.1,
}
const sealant: Treats = {
  kind: 'sealant',
  product: '',
  amount: 'a thin film all round',
  setsMinutes: 15,
  curesMinutes: 720,
  takesMl: 0.5,
}
const lubricant: Treats = {
  kind: 'threadLubricant',
  product: '',
  amount: 'a thin film',
  setsMinutes: 0,
  curesMinutes: 0,
  takesMl: 0.3,
}
const dry: Treats = {
  kind: 'dry',
  product: '',
  amount: 'clean and dry',
  setsMinutes: 0,
  curesMinutes: 0,
  takesMl: 0,
}

/**
 * Where good workshops differ, each with its default first and a reason for each choice. A model's steps,
 * ways of doing a task, uses and fasteners name these keys; nothing else in the composer knows of them.
 */
export const practices = [
  {
    key: 'stripOrder',
    name: 'Strip order',
    about: 'Whether a pump is stripped item by item or one cylinder after the other.',
    choices: [
      {
        key: 'itemByItem',
        name: 'Whole pump, item by item',
        reason: 'Everything is seen side by side before anything goes back.',
      },
      {
        key: 'oneAtATime',
        name: 'One head or cylinder at a time',
        reason: 'Look-alike parts cannot change places; a stopped job leaves one cylinder open, not all.',
      },
    ],
  },
  {
    key: 'headOff',
    everyChoice: true,
    name: 'Taking the manifold off',
    about: 'How the manifold is parted from the crankcase.',
    choices: [
      {
        key: 'prised',
        name: 'Turned off by the crank, prised evenly at two points',
        reason: 'The shaft pushes it square; no hammer comes near ceramic.',
      },
      {
        key: 'tapped',
        name: 'Tapped off with a soft mallet while supported',
        reason: 'Quicker where it sits lightly; it must be held, or it drops onto the plungers.',
      },
    ],
  },
  {
    key: 'guidePins',
    everyChoice: true,
    name: 'Guide pins',
    about: 'Whether the manifold slides on pins while it comes off and goes on.',
    choices: [
      { key: 'used', name: 'Always with guide pins', reason: 'Carried square, it cannot lean on a plunger.' },
      {
        key: 'without',
        name: 'Without',
        reason: 'A light manifold can be held by hand; two people where it is not.',
      },
    ],
  },
  {
    key: 'plungerFastener',
    name: 'Plunger fastener',
    about: 'What goes on the threads that hold a plunger.',
    choices: [
      { key: 'asManual', name: 'As the manual states', reason: 'Its torque was found with that treatment.' },
      {
        key: 'locker',
        name: 'Threadlocker',
        reason: 'Holds against the blows of the stroke.',
        treats: locker,
      },
      {
        key: 'sealant',
        name: 'Sealant',
        reason: 'Keeps water from creeping along the thread.',
        treats: sealant,
      },
      {
        key: 'dry',
        name: 'Dry',
        reason: 'Nothing to wait for; the bolt is looked at with every service.',
        treats: dry,
      },
    ],
  },
  {
    key: 'headBoltThreads',
    name: 'Manifold bolt threads',
    about: 'What goes on the threads of manifold and head bolts. The torque belongs to the treatment.',
    choices: [
      { key: 'asManual', name: 'As the manual states', reason: 'Its torque was found with that treatment.' },
      {
        key: 'threadLubricant',
        name: 'Thread lubricant',
        reason: 'Even pull, and they come out again.',
        treats: lubricant,
      },
      {
        key: 'threadlocker',
        name: 'Medium threadlocker',
        reason: 'They stay where the pump shakes.',
        treats: locker,
      },
      { key: 'dry', name: 'Dry', reason: 'Nothing to forget; the scatter is larger.', treats: dry },
    ],
  },
  {
    key: 'tighteningOrder',
    name: 'Tightening order',
    about: 'The order of bolts where the manual gives none.',
    choices: [
      { key: 'crissCross', name: 'Criss-cross', reason: 'The load stays balanced after every pair.' },
      {
        key: 'centreOut',
        name: 'From the centre outwards',
        reason: 'A long plate lies down without bowing.',
      },
      { key: 'asNumbered', name: 'As numbered in the manual', reason: 'Its drawing knows the casting.' },
    ],
  },
  {
    key: 'retapFirst',
    name: 'First bolt again',
    about: 'Whether the first bolt of a round is tightened again at the end, where the manual is silent.',
    choices: [
      { key: 'no', name: 'Not again', reason: 'Stages in full passes have settled it.' },
      { key: 'yes', name: 'Tightened once more', reason: 'The first one loosens as the plate comes down.' },
    ],
  },
  {
    key: 'crankToRefit',
    everyChoice: true,
    name: 'Crank position to refit the manifold',
    about: 'Where the plungers stand when the manifold goes on.',
    choices: [
      {
        key: 'outerOut',
        name: 'Outer plungers level and fully out',
        reason: 'Two plungers guide it; it cannot turn.',
      },
      {
        key: 'centreOut',
        name: 'Centre plunger fully out, outer two level',
        reason: 'One plunger finds its seal first; the other two follow.',
      },
    ],
  },
  {
    key: 'sealFitting',
    everyChoice: true,
    name: 'Fitting seals',
    about: 'How a pressure seal goes into its seat.',
    choices: [
      { key: 'byHand', name: 'By hand at an angle', reason: 'Fingers feel a lip that folds.' },
      { key: 'driven', name: 'Driven with a socket and soft mallet', reason: 'Square and home in one go.' },
      { key: 'installer', name: 'With a clamp-in installer', reason: 'No force on one side of the lip.' },
      {
        key: 'hotWater',
        name: 'Softened in hot water first',
        reason: 'A stiff seal bends without a crease.',
      },
    ],
  },
  {
    key: 'capOrings',
    name: 'Cap O-rings',
    about: 'Whether the O-rings under valve caps are always new.',
    choices: [
      { key: 'always', name: 'Always renewed', reason: 'They cost less than the drip.' },
      { key: 'onCondition', name: 'Renewed on condition', reason: 'A sound ring may stay in its groove.' },
    ],
  },
  {
    key: 'goodValves',
    name: 'Valves that look good',
    about: 'Whether valves are renewed with their kit, or inspected and used again.',
    choices: [
      { key: 'renew', name: 'Renew with the kit', reason: 'All start their life together.' },
      {
        key: 'inspect',
        name: 'Inspect and reuse, with findings',
        reason: 'Parts are worn out before they are thrown out; its life goes on counting.',
      },
    ],
  },
  {
    key: 'valveDressing',
    everyChoice: true,
    name: 'Valve O-ring dressing',
    about: 'What goes on the O-ring of a valve seat.',
    choices: [
      { key: 'lubricant', name: 'Assembly lubricant', reason: 'It slides home and comes out again.' },
      { key: 'compound', name: 'Sealing compound', reason: 'Only where the manual says so.' },
    ],
  },
  {
    key: 'capThreads',
    name: 'Cap threads',
    about: 'What goes on the threads of caps and plugs, where the manual is silent.',
    choices: [
      { key: 'asManual', name: 'As the manual states', reason: 'Its torque was found with that treatment.' },
      {
        key: 'sealant',
        name: 'Sealant, torqued before it sets',
        reason: 'Tight against weeping; old residue is cleaned off first.',
        treats: sealant,
      },
      {
        key: 'threadlocker',
        name: 'Threadlocker, torqued before it sets',
        reason: 'Caps stay where pulsation loosens them; old residue is cleaned off first.',
        treats: locker,
      },
      {
        key: 'dry',
        name: 'Dry',
        reason: 'They come out again easily; the O-ring alone keeps them tight.',
        treats: dry,
      },
    ],
  },
  {
    key: 'powerTools',
    name: 'Power tools',
    about: 'How far power tools may go.',
    choices: [
      { key: 'removalOnly', name: 'For removal only', reason: 'Nothing is ever run in too far.' },
      { key: 'runDown', name: 'Run-down before hand torque', reason: 'Saves turns; the pull stays by hand.' },
      { key: 'never', name: 'Never', reason: 'A hand feels a crossed thread.' },
    ],
  },
  {
    key: 'benchOrPlace',
    name: 'Bench or in place',
    about: 'Where a pump is serviced.',
    choices: [
      { key: 'inPlace', name: 'In place', reason: 'Drive and alignment stay as they are.' },
      { key: 'onBench', name: 'Pump off the machine', reason: 'Light, a vice and a clean bench.' },
    ],
  },
  {
    key: 'howMuch',
    name: 'How much to renew',
    about: 'Whether one failed position takes the others of its kind with it.',
    choices: [
      { key: 'all', name: 'All positions of the item at once', reason: 'One age on one pump.' },
      {
        key: 'failedOnly',
        name: 'Only what failed, with its own clock',
        reason: 'Sound parts live out their life; the record knows which is which.',
      },
    ],
  },
  {
    key: 'reusedValves',
    name: 'Valves used again',
    about: 'Where a valve that is used again goes.',
    choices: [
      { key: 'ownBore', name: 'Each back to its own bore', reason: 'It has worn to its own seat.' },
      { key: 'anyBore', name: 'Any bore of its kind', reason: 'Only where seat and valve go together.' },
    ],
  },
  {
    key: 'turningOver',
    name: 'Turning over by hand',
    about: 'What is made safe before an engine is turned by hand.',
    choices: [
      {
        key: 'petrol',
        name: 'Key off, fuel off, spark lead removed and earthed',
        reason: 'A warm petrol engine can fire when it is turned.',
      },
      {
        key: 'byOwnRule',
        name: 'Diesel or electric: by its own rule',
        reason: 'Stop lever out, supply locked out, as its own manual says.',
      },
    ],
  },
  {
    key: 'winterTanks',
    name: 'Winter: tanks and suction',
    about: 'How tank, suction hose and strainer are made safe before the frost.',
    choices: [
      { key: 'drain', name: 'Drain', reason: 'They run empty by themselves.' },
      { key: 'leave', name: 'Leave', reason: 'Only in a heated store, by name.' },
    ],
  },
  {
    key: 'winterPump',
    name: 'Winter: pump',
    about: 'How the pump is made safe before the frost.',
    choices: [
      { key: 'through', name: 'Antifreeze through', reason: 'Reaches the pockets, and seals stay wet.' },
      { key: 'protector', name: 'Screw-on protector', reason: 'Quick; it fills what it reaches.' },
      { key: 'blowOut', name: 'Blow out', reason: 'Costs no fluid; droplets stay and seals stand dry.' },
      { key: 'drain', name: 'Drain', reason: 'Only where the manual says that it drains whole.' },
      { key: 'leave', name: 'Leave', reason: 'Only in a heated store, by name.' },
    ],
  },
  {
    key: 'winterBypass',
    name: 'Winter: by-pass and unloader',
    about: 'How unloader and by-pass line are made safe before the frost.',
    choices: [
      { key: 'through', name: 'Antifreeze through', reason: 'It goes round with the outlet shut.' },
      { key: 'blowOut', name: 'Blow out', reason: 'With the line taken off at both ends.' },
      { key: 'drain', name: 'Drain', reason: 'Where it lies with a fall and the unloader lets down.' },
      { key: 'leave', name: 'Leave', reason: 'Only in a heated store, by name.' },
    ],
  },
  {
    key: 'winterCoil',
    name: 'Winter: heater coil',
    about: 'How the coil is made safe before the frost.',
    choices: [
      { key: 'through', name: 'Antifreeze through', reason: 'A coil lies in turns and does not drain.' },
      { key: 'blowOut', name: 'Blow out', reason: 'Costs no fluid; a turn may keep its water.' },
      { key: 'leave', name: 'Leave', reason: 'Only in a heated store, by name.' },
    ],
  },
  {
    key: 'winterHose',
    name: 'Winter: pressure hose and gun',
    about: 'How hose, reel and gun are made safe before the frost.',
    choices: [
      { key: 'drain', name: 'Drain', reason: 'Laid out and walked along it keeps little.' },
      {
        key: 'toNozzle',
        name: 'Antifreeze through to the nozzle',
        reason: 'Gun and swivels are safe too; takes the most fluid.',
      },
      { key: 'blowOut', name: 'Blow out', reason: 'Costs no fluid; the gun’s valve may keep a drop.' },
      { key: 'leave', name: 'Leave', reason: 'Taken off into a heated store, by name.' },
    ],
  },
  {
    key: 'winterChemical',
    name: 'Winter: injector and chemical side',
    about: 'How injector, chemical pump and their lines are made safe before the frost.',
    choices: [
      { key: 'through', name: 'Antifreeze through', reason: 'After rinsing; check valves stay wet.' },
      { key: 'drain', name: 'Drain', reason: 'Where everything of it runs empty.' },
      { key: 'leave', name: 'Leave', reason: 'A chemical that freezes lower than it gets here.' },
    ],
  },
  {
    key: 'winterFuel',
    name: 'Winter: petrol',
    about: 'What is done about the petrol of an engine that is laid up.',
    choices: [
      {
        key: 'treated',
        name: 'Treated fuel, run into the carburettor',
        reason: 'Gaskets stay wet; it starts in spring.',
      },
      { key: 'runDry', name: 'Run dry', reason: 'Nothing is left to turn to gum.' },
    ],
  },
  {
    key: 'winterProof',
    name: 'Winter: proof',
    about: 'How it is proved that what was put in holds.',
    choices: [
      {
        key: 'refractometer',
        name: 'Refractometer reading',
        reason: 'Measures what came out, diluted or not.',
      },
      {
        key: 'colour',
        name: 'Colour at the outlet',
        reason: 'Where there is no refractometer for the fluid.',
      },
    ],
  },
] as const satisfies readonly Practice[]

export type PracticeKey = (typeof practices)[number]['key']
export const practiceKeys: readonly PracticeKey[] = practices.map(({ key }) => key)

/** @throws when there is no practice of this name */
export function practiceOf(key: string): Practice {
  const found = practices.find((each) => each.key === key)
  if (!found) throw new Error(`There is no practice “${key}”.`)
  return found
}

export function choiceName(key: string, choice: string): string {
  return practiceOf(key).choices.find((each) => each.key === choice)?.name ?? choice
}
