import { plainStep } from '../composing'
import type { Phase, Step } from '../models'
import { inSentence } from '../units'
import { elementKinds, zoneNames, zoneOf, type CircuitElement, type Zone } from './circuit'
import { isFilled, type MachinePlan, type Method, type ZonePlan } from './methods'

/** The winter part of a sheet, in the one order that works; `secure` is making safe after a run. */
export type WinterPhase = Extract<Phase, 'run' | 'secure' | 'drain' | 'protect' | 'finish'>

/** What a step does to the water, for the order to be checked and the record to be read. */
export type WinterDeed =
  | 'fuel'
  | 'run'
  | 'rinse'
  | 'secure'
  | 'drain'
  | 'mix'
  | 'turn'
  | 'fill'
  | 'prove'
  | 'catch'
  | 'leave'
  | 'close'
  | 'meter'

export type WinterStep = {
  key: string
  phase: Phase
  zone: Zone | null
  does: WinterDeed
  heading: string
  where: string
  step: Step
}

/** How the pump is turned over while the fluid is drawn through: by what drives it. */
export const turnings = {
  cord: 'Petrol engine, by its cord',
  pulley: 'Diesel engine, by the pulley',
  hub: 'Magnetic clutch, by the hub',
  motor: 'Electric motor, by hand',
  jog: 'Electric motor, a brief run',
  pushed: 'Cannot be turned: pushed through',
} as const
export type Turning = keyof typeof turnings

/** Before it is laid up: what is done about the fuel. */
export const fuelWays = {
  treated: 'Treated fuel, run into the carburettor',
  runDry: 'Run dry',
  winterDiesel: 'Winter diesel',
  none: 'Nothing',
} as const
export type FuelWay = keyof typeof fuelWays

export type WinterWork = {
  drive: 'petrol' | 'diesel' | 'electric' | 'vehicle'
  turning: Turning
  fuel: FuelWay
  /** Of the engine, for the measure of what treats it; null where nobody knows. */
  fuelTankLitres: number | null
  circuit: readonly CircuitElement[]
  plan: MachinePlan
  product: { name: string; fluid: 'propylene' | 'ethylene' | 'alcohol'; ready: boolean } | null
  /** What it must hold: the design low less the margin. */
  needC: number
  /** How what was put in is proved. */
  proof: 'refractometer' | 'colour'
  /** Other services stand before it on the same sheet, and left it under their locks. */
  locked: boolean
  meters: { id: string; name: string; unit: 'h' | 'strokes' }[]
}

/** What proves a zone on a sheet; a proof that fails asks for more and is taken again. */
export type ZoneProof =
  | { zone: Zone; kind: 'refractometer'; needC: number; scale: 'propylene' | 'ethylene' }
  | { zone: Zone; kind: 'colour' | 'dryEnd' }

/** What a sheet carries of the winter besides its steps. */
export type SheetWinter = {
  kind: 'lay' | 'return'
  proofs: Record<string, ZoneProof>
  zones: { zone: Zone; method: Method; downToC: number | null; litres: number | null }[]
  product: { id: string; name: string } | null
  /** Which meter a closing step reads. */
  meters: Record<string, string>
}

/** The part key by which a sheet expects what is poured. */
export const pouredPart = (productId: string): string =>
  `poured-${productId.replaceAll('-', '').slice(0, 33)}`

/** Answers of a proof by eye: the first passes. */
export const proofAnswers = {
  colour: ['clean colour', 'still thin or cloudy'],
  dryEnd: ['nothing but air', 'droplets still come'],
} as const

const litres = (value: number) => `${Math.round(value * 10) / 10}\u00a0L`
const degrees = (value: number) => `${String(Math.round(value * 10) / 10).replace('-', '−')}\u00a0°C`
const named = (element: CircuitElement) => inSentence(element.name || elementKinds[element.kind])

const deferring = 'The maker’s manual and local rules come first.'

type Draft = Partial<Step> & { text: string }

/**
 * The winter work on one machine as ordered steps: run, make safe, drain from the source down, protect from the
 * pump outwards, and close. Nothing is run once it is protected, nothing is drained once it is filled, fuel comes
 * before draining, and every zone is drained, filled or left by name.
 *
 * @returns the steps, and of those that prove a zone what has to be met
 */
export function winterSteps(work: WinterWork): { steps: WinterStep[]; proofs: Record<string, ZoneProof> } {
  const steps: WinterStep[] = []
  const proofs: Record<string, ZoneProof> = {}
  const add = (
    phase: Phase,
    key: string,
    does: WinterDeed,
    heading: string,
    zone: Zone | null,
    { text, ...more }: Draft,
  ) => {
    const where = zone === null ? '' : zoneNames[zone].toLowerCase()
    const step: Step = { ...plainStep, ...more, key: key.replaceAll('/', '-'), phase, text }
    steps.push({ key: `winter/${key}`, phase, zone, does, heading, where, step })
  }
  runSteps(work, add)
  secureSteps(work, add, 'stop', false)
  drainSteps(work, add)
  protectSteps(work, add, (key, proof) => (proofs[`winter/${key}`] = proof))
  finishSteps(work, add)
  return { steps, proofs }
}

type Add = (
  phase: Phase,
  key: string,
  does: WinterDeed,
  heading: string,
  zone: Zone | null,
  draft: Draft,
) => void

function runSteps({ drive, fuel, fuelTankLitres, circuit, locked }: WinterWork, add: Add): void {
  const heading = 'Run'
  const tank = fuelTankLitres === null ? 'what is in the tank' : litres(fuelTankLitres)
  if (fuel === 'treated')
    add('run', 'run/fuel', 'fuel', heading, null, {
      text: `Put fuel stabiliser into the tank, by its label for ${tank} of fuel.`,
      caution: 'Engine cold, no flame, in the open.',
      qualification: 'fuel',
    })
  if (fuel === 'winterDiesel')
    add('run', 'run/fuel', 'fuel', heading, null, {
      text: `Fill up with winter diesel, or treat ${tank} by the additive’s label.`,
      caution: 'No flame; wipe up what is spilt.',
      qualification: 'fuel',
    })
  add('run', 'run/water', 'run', heading, null, {
    text: 'Water on and gun open, then start. Keep the gun open: never long on by-pass.',
    caution: `Nobody in front of the gun. On by-pass the same water goes round and gets hot within minutes. ${deferring}`,
    ...(locked && { locks: 'off' as const, gate: true }),
  })
  if (circuit.some(({ kind }) => kind === 'coil'))
    add('run', 'run/coil', 'run', heading, 'coil', {
      text: 'Burner off. Run cold water through the coil until it comes out cold.',
      caution: 'A coil that is shut in hot builds steam.',
    })
  const chemical = circuit.filter(({ kind }) => zoneOf[kind] === 'chemical')
  if (chemical.length > 0) {
    add('run', 'run/rinse', 'rinse', heading, 'chemical', {
      text: `Draw clean water through ${chemical.map(named).join(', ')}, one line after the other.`,
      caution: 'Two chemicals never meet. Gloves and goggles; collect what comes out, by local rules.',
      gate: true,
    })
    add('run', 'run/strip', 'rinse', heading, 'chemical', {
      text: 'Hold a test strip into what comes out: no chemical may show.',
      asks: { question: 'stripShows', answers: ['no chemical', 'chemical: rinsed again until none'] },
    })
  }
  if (fuel === 'treated')
    add('run', 'run/carburettor', 'fuel', heading, null, {
      text: 'Run on for ten minutes, gun open, so that the treated fuel is in the carburettor.',
      timer: { kind: 'soak', minutes: 10 },
    })
  if (fuel === 'runDry')
    add('run', 'run/dry', 'fuel', heading, null, {
      text: 'Shut the fuel, water still on and gun open, and let it run until it stops by itself.',
      caution: 'Never let it run on once the water has gone.',
      qualification: 'fuel',
    })
  if (drive === 'vehicle')
    add('run', 'run/engage', 'run', heading, null, {
      text: 'Disengage the pump drive; the vehicle keeps its own fuel service.',
    })
}

function secureSteps({ drive }: Pick<WinterWork, 'drive'>, add: Add, round: string, again: boolean): void {
  const stop: Record<WinterWork['drive'], string> = {
    petrol: 'Stop the engine. Key off and out, fuel shut, spark lead off and earthed.',
    diesel: 'Stop the engine. Stop control held or tied out, fuel shut, key out.',
    electric: 'Switch off, pull the plug or lock the switch out, and try the start button.',
    vehicle: 'Engine off, key out and with you, pump drive disengaged.',
  }
  add('secure', `${round}/stop`, 'secure', 'Make safe', null, {
    text: stop[drive],
    caution: `A warm engine can fire when it is turned. ${deferring}`,
    gate: true,
    locks: 'on',
    ...(drive === 'electric' && { qualification: 'electrical' as const }),
  })
  add('secure', `${round}/relieve`, 'secure', 'Make safe', null, {
    text: `Shut the water${again ? ' again' : ''}, open the gun and keep it open until nothing comes; the gauge stands at 0.`,
    caution: 'Water under pressure stays in a hose that is shut at both ends: it surprises people.',
    gate: true,
  })
}

const drainWords: Partial<Record<CircuitElement['kind'], string>> = {
  waterTank: 'Open the drain, lid off, until nothing runs. Sponge out the sump.',
  suctionHose: 'Take it off at both ends and let it run out, the far end low.',
  strainer: 'Bowl off, element out, both emptied and wiped; put back hand-tight.',
  pressureHose: 'Off the pump, laid out downhill, gun open, walked along its length until nothing comes.',
  reel: 'Turn it by hand, free end low, until nothing comes out of the swivel.',
  gun: 'Trigger tied open, lance down.',
  nozzle: 'Off, blown through, into its box.',
  bypassLine: 'Off at its low end, let run out.',
  unloader: 'Let down by its own plug or line; work the knob through.',
  pump: 'Drain plugs out at its lowest points; plugs into the bag on the machine.',
  coil: 'Lowest plug out, until nothing runs.',
  chemicalTank: 'Run empty into a marked can, rinsed, lid on.',
  injector: 'Line off, check valve let out.',
  chemicalPump: 'Run empty by its lowest plug.',
  chemicalHose: 'Off, laid downhill, until nothing comes.',
  chemicalReel: 'Turn it by hand until nothing comes out of the swivel.',
}

/** From the source down, so that nothing runs into what is empty already. */
const drainOrder: readonly Zone[] = ['tanks', 'hose', 'bypass', 'pump', 'coil', 'chemical']

function drainSteps({ circuit, plan }: WinterWork, add: Add): void {
  for (const zone of drainOrder) {
    const own = plan.zones.find((each) => each.zone === zone)
    if (!own || own.method === 'leave') continue
    // What is pushed through with fluid pushes its own water out: pump and coil are not opened for it.
    const pushed = (zone === 'pump' || zone === 'coil' || zone === 'bypass') && isFilled(own.method)
    const pieces = circuit.filter(({ kind }) => zoneOf[kind] === zone)
    if (!pushed)
      for (const piece of pieces) {
        const traps = piece.traps ? ` It keeps water in ${piece.traps}.` : ''
        add('drain', `drain/${zone}/${piece.id}`, 'drain', 'Drain', zone, {
          text: `${capital(named(piece))}: ${drainWords[piece.kind] ?? 'let it run empty.'}${traps}`,
          caution:
            piece.kind === 'chemicalTank' ? 'Gloves and goggles. By local rules, never into a drain.' : '',
        })
      }
    if (own.method === 'blowOut')
      add('drain', `drain/${zone}/blow`, 'drain', 'Blow out', zone, {
        text: `Far end open and tied down, then air through ${pieces.map(named).join(', ')}: rubber-ended nozzle, 2 bar at the most.`,
        caution:
          'A loose end whips, and air drives water into eyes: goggles, end tied, never a hand over it. 2 bar is ours; the manual may say less.',
        helperMinutes: 2,
      })
  }
}

const capital = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}`

/** From the pump outwards: with the outlet shut what is drawn in first fills pump and by-pass. */
const protectOrder: readonly Zone[] = ['pump', 'bypass', 'coil', 'hose', 'chemical', 'tanks']

function protectSteps(work: WinterWork, add: Add, prove: (key: string, proof: ZoneProof) => void): void {
  const { plan, product } = work
  const filled = plan.zones.filter(({ recipe }) => recipe?.ok)
  const total = filled.reduce((sum, { ownLitres }) => sum + ownLitres, 0)
  const water = filled.reduce((sum, { ownWaterLitres }) => sum + ownWaterLitres, 0)
  if (product && total > 0) {
    const cautions = [...new Set(filled.flatMap(({ recipe: mix }) => (mix?.ok ? mix.cautions : [])))]
    add('protect', 'protect/mix', 'mix', 'Protect', null, {
      text: product.ready
        ? `Have ${litres(total)} of ${product.name} ready in clean cans. It is never thinned.`
        : `Mix ${litres(total)} of ${product.name} with ${litres(water)} of clean water.`,
      caution: [...cautions, 'By its own label and safety sheet: gloves, and off the ground.'].join(' '),
      gate: true,
    })
  }
  for (const zone of protectOrder) {
    const own = plan.zones.find((each) => each.zone === zone)
    if (!own) continue
    if (own.method === 'leave') leaveStep(own, add)
    else if (isFilled(own.method)) fillSteps(work, own, add, prove)
    else if (own.method === 'blowOut') {
      add('protect', `protect/${zone}/dry`, 'prove', 'Prove', zone, {
        text: `Look at the open end of ${zoneNames[zone].toLowerCase()} while air goes through once more.`,
        asks: { question: `dryEnd-${zone}`, answers: [...proofAnswers.dryEnd] },
        photo: false,
        gate: true,
      })
      prove(`protect/${zone}/dry`, { zone, kind: 'dryEnd' })
    }
  }
  if (total > 0)
    add('protect', 'protect/caught', 'catch', 'Protect', null, {
      text: 'Measure what was caught. Clean and still strong enough it is used again, else it is waste.',
      measure: { what: 'fluid caught', unit: 'L', min: 0, max: null },
      asks: {
        question: 'caught',
        answers: ['kept for the next machine', 'waste, by local rules', 'nothing caught'],
      },
      caution: 'Never into a drain or onto the ground: by local rules.',
    })
}

function fillSteps(
  work: WinterWork,
  own: ZonePlan,
  add: Add,
  prove: (key: string, proof: ZoneProof) => void,
): void {
  const { zone, recipe: mix, fillsLitres } = own
  const amount = mix?.ok ? mix.concentrateLitres + mix.waterLitres : fillsLitres
  const after = Math.max(0, amount - fillsLitres)
  const key = (name: string) => `protect/${zone}/${name}`
  const until = `until clean colour comes, then ${litres(after)} more`
  if (zone === 'pump') {
    add('protect', key('inlet'), 'fill', 'Protect', zone, {
      text:
        own.method === 'protector'
          ? 'Screw the protector onto the inlet, outlet open.'
          : 'Shut the outlet. Raise the inlet hose and fill it, or put the suction hose into the can.',
    })
    const drawn = `until clean colour comes out, then ${litres(after)} more: about ${litres(amount)} in all`
    if (own.method !== 'protector') turnSteps(work, drawn, add)
    // A brief run draws it in by itself, and is made safe again at once.
    if (own.method === 'protector' || work.turning !== 'jog')
      add('protect', key('fill'), 'fill', 'Protect', zone, {
        text:
          own.method === 'protector'
            ? 'Press it in until clean colour comes out of the outlet.'
            : `Draw it through ${drawn}.`,
        cue: 'clean colour, no bubbles',
        helperMinutes: 5,
      })
  } else if (zone === 'chemical') {
    add('protect', key('fill'), 'fill', 'Protect', zone, {
      text: `Chemical line into the can: draw ${litres(amount)} through injector and chemical pump ${until}.`,
      caution: 'Only once a strip showed no chemical: some react with what is put in.',
    })
  } else {
    const through: Partial<Record<Zone, string>> = {
      bypass: 'Outlet still shut: the fluid goes round through unloader and by-pass line',
      coil: 'Open the way through the coil, its end over a can',
      hose: 'Hose on again, gun over a can and open',
    }
    // What only runs by itself is not run again for these.
    const by = work.turning === 'jog' ? ', by a transfer pump at low pressure' : ''
    add('protect', key('fill'), 'fill', 'Protect', zone, {
      text: `${through[zone] ?? 'Draw it through'}${by}: ${until}, about ${litres(amount)} in all.`,
      cue: 'clean colour, no bubbles',
    })
  }
  if (work.proof === 'refractometer' && work.product && work.product.fluid !== 'alcohol') {
    add('protect', key('proof'), 'prove', 'Prove', zone, {
      text: `Refractometer at the outlet, ${work.product.fluid} scale: ${degrees(work.needC)} or lower.`,
      measure: { what: 'freezing point', unit: '°C', min: null, max: work.needC },
      caution: 'The scale must be that of the fluid: the other one reads several degrees wrong.',
      gate: true,
    })
    prove(key('proof'), { zone, kind: 'refractometer', needC: work.needC, scale: work.product.fluid })
  } else {
    add('protect', key('proof'), 'prove', 'Prove', zone, {
      text: 'Catch some in a clear glass and hold it beside the can: the same colour, clear.',
      asks: { question: `colour-${zone}`, answers: [...proofAnswers.colour] },
      gate: true,
    })
    prove(key('proof'), { zone, kind: 'colour' })
  }
}

/** Turning the pump over while it draws: never by anything that can start. */
function turnSteps(work: WinterWork, drawn: string, add: Add): void {
  const words: Record<Turning, { text: string; caution: string; people: number }> = {
    cord: {
      text: 'Key and fuel off, spark lead off and earthed: pull the cord slowly, two people, one at the can.',
      caution: 'It can kick back. Never with the lead on.',
      people: 2,
    },
    pulley: {
      text: 'Stop control held out, fuel shut: turn at the crank pulley with a bar or by hand.',
      caution: 'Fingers out of the belt; nobody at the key.',
      people: 2,
    },
    hub: {
      text: 'Engine locked, key with you: turn the pump’s shaft at its hub. With the clutch disengaged the pulley turns nothing.',
      caution: 'Never with the engine running.',
      people: 2,
    },
    motor: {
      text: 'Locked out: turn the shaft at the coupling or fan by hand.',
      caution: 'Guard off only while it is locked out; back on before the lock comes off.',
      people: 2,
    },
    jog: {
      text: `Guards on, everybody clear: lock off, and run it a few seconds at a time ${drawn}.`,
      caution: 'By a person who is qualified for it. Never dry, never against a shut outlet.',
      people: 2,
    },
    pushed: {
      text: 'It cannot be turned: push the fluid through from the inlet with a transfer pump, at low pressure.',
      caution: 'Not above what the inlet stands.',
      people: 1,
    },
  }
  const { text, caution, people } = words[work.turning]
  const jogs = work.turning === 'jog'
  add('protect', 'protect/pump/turn', jogs ? 'fill' : 'turn', 'Protect', 'pump', {
    text,
    caution: `${caution} ${deferring}`,
    people,
    gate: true,
    ...(jogs && { locks: 'off' as const, qualification: 'electrical' as const }),
  })
  // A run, however brief, is followed by making safe anew before anything else is touched.
  if (jogs) secureSteps(work, add, 'jogged', true)
}

function leaveStep({ zone, unprotected }: ZonePlan, add: Add): void {
  add('protect', `protect/${zone}/leave`, 'leave', 'Leave', zone, {
    text: `Left as it is: ${unprotected.map(inSentence).join(', ') || zoneNames[zone].toLowerCase()}. Say why; it stands under your name.`,
    asks: {
      question: `left-${zone}`,
      answers: [
        'what is in it freezes lower',
        'it stands in a heated store',
        'nothing protects it: I answer for it',
      ],
    },
    gate: true,
  })
}

function finishSteps({ meters }: WinterWork, add: Add): void {
  add('finish', 'finish/plugs', 'close', 'Close', null, {
    text: 'Plug every open end; plugs and small pieces into one bag, tied to the machine.',
  })
  add('finish', 'finish/label', 'close', 'Close', null, {
    text: 'Hang the label on the start: laid up, do not start; what is in it, and down to what.',
    gate: true,
  })
  for (const meter of meters)
    add('finish', `finish/meter/${meter.id}`, 'meter', 'Close', null, {
      text: `Read ${inSentence(meter.name)} again: what it shows now closes the protection.`,
      measure: { what: inSentence(meter.name), unit: meter.unit, min: 0, max: null },
      gate: true,
    })
  add('finish', 'finish/unlock', 'close', 'Close', null, {
    text: 'Take your own lock off. The label stays on the start.',
    locks: 'off',
    gate: true,
  })
}

/** Back to work: the steps of spring. */
export function returnSteps(work: {
  circuit: readonly CircuitElement[]
  zones: readonly { zone: Zone; method: Method }[]
  drive: WinterWork['drive']
}): WinterStep[] {
  const steps: WinterStep[] = []
  const add: Add = (phase, key, does, heading, zone, { text, ...more }) => {
    const where = zone === null ? '' : zoneNames[zone].toLowerCase()
    const step: Step = { ...plainStep, ...more, key: key.replaceAll('/', '-'), phase, text }
    steps.push({ key: `return/${key}`, phase, zone, does, heading, where, step })
  }
  const filled = work.zones.filter(({ method }) => isFilled(method)).map(({ zone }) => zone)
  add('makeSafe', 'look', 'secure', 'Make safe', null, {
    text: 'Key out, locked out. Look at pump, unloader, coil, hose and gun for cracks and white traces before anything is connected.',
    caution: `What froze shows as a hairline. Do not start it if anything is doubtful. ${deferring}`,
    asks: { question: 'winterDamage', answers: ['nothing found', 'damage found'] },
    gate: true,
    locks: 'on',
  })
  add('rebuild', 'reconnect', 'close', 'Reconnect', null, {
    text: `Plugs from their bag back in, then ${work.circuit
      .filter(({ kind }) => kind !== 'waterTank' && kind !== 'chemicalTank')
      .map(named)
      .join(', ')} connected; by-pass back where it was.`,
  })
  add('rebuild', 'oil', 'close', 'Oil', null, {
    text: 'Oil level and colour at pump and engine. Milky oil is changed before it runs.',
    gate: true,
  })
  add('prove', 'flush', 'rinse', 'Flush', null, {
    text:
      filled.length > 0
        ? `Label off. Water on, gun open, low pressure: flush ${filled.map((zone) => zoneNames[zone].toLowerCase()).join(', ')} until it comes clear, into a can.`
        : 'Label off. Water on, gun open, low pressure, until no air comes.',
    caution: 'What comes out is collected, by local rules; never into a drain. Nobody in front of the gun.',
    locks: 'off',
    gate: true,
  })
  add('prove', 'leak', 'prove', 'Prove', null, {
    text: 'Leak look at low pressure: head, caps, weep holes, unloader, coil, hose ends.',
    asks: { question: 'leaks', answers: ['none', 'leaks: stopped and seen to'] },
    gate: true,
  })
  add('prove', 'pressure', 'prove', 'Prove', null, {
    text: 'Up to working pressure in steps, gun open; by-pass and unloader work as before.',
    caution: 'Stay clear of the hose until it has held.',
    gate: true,
  })
  return steps
}
