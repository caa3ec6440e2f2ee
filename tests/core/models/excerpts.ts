/** Short excerpts of the other kinds of pump: each says what is peculiar to it. Not whole models. */
const frame = (name: string, design: string) => ({
  format: 1,
  maker: 'Quillon',
  name,
  design,
  notice: 'An excerpt for tests.',
  zones: [{ key: 'all', name: 'Pump' }],
  makeSafeMinutes: 10,
  proveMinutes: 10,
})
const step = (key: string, phase: string, text: string, more: object = {}) => ({ key, phase, text, ...more })

/** B: inlet valves only under the seals; injector part faces the pump; unloader put back. */
export const builtIn = {
  ...frame('C5', 'compact triplex with built-in accessories'),
  repeats: [{ key: 'cylinder', name: 'cylinder', count: 3 }],
  positions: [
    { key: 'inletValve', name: 'Inlet valve', zone: 'all', sort: 'valve', repeat: 'cylinder', part: 'valve' },
    { key: 'seal', name: 'Seal', zone: 'all', sort: 'seal', repeat: 'cylinder', part: 'seal' },
    { key: 'injector', name: 'Injector cone', zone: 'all', part: 'cone' },
    { key: 'startBall', name: 'Start-assist ball', zone: 'all', part: 'ball' },
  ],
  parts: [
    { key: 'valve', name: 'Valve' },
    { key: 'seal', name: 'Seal' },
    { key: 'cone', name: 'Injector cone', oriented: true },
    { key: 'ball', name: 'Ball' },
    { key: 'ballSpring', name: 'Ball spring' },
  ],
  access: [
    { key: 'manifold', name: 'Manifold off', openMinutes: 10, closeMinutes: 15 },
    {
      key: 'sealOut',
      name: 'Seal out',
      parent: 'manifold',
      repeat: 'cylinder',
      openMinutes: 3,
      closeMinutes: 4,
      disturbs: [{ position: 'seal', rule: 'renew', why: 'drawn to reach the valve under it' }],
    },
    {
      key: 'unloader',
      name: 'Unloader open',
      openMinutes: 5,
      closeMinutes: 6,
      open: [
        step('note', 'stripDown', 'Count the turns.', { setting: { what: 'spring handle', goes: 'noted' } }),
      ],
      close: [
        step('seat', 'rebuild', 'Wipe the seat clean.', { cleans: 'seats' }),
        step('tip', 'rebuild', 'Lay the by-pass tip in.', {
          orientation: { face: 'tip', towards: 'flow' },
        }),
        step('free', 'rebuild', 'The by-pass tip moves freely.', { gate: true, cue: 'drops by itself' }),
        step('back', 'rebuild', 'Turn it back.', { setting: { what: 'spring handle', goes: 'putBack' } }),
      ],
    },
  ],
  tasks: [
    {
      key: 'inletValves',
      name: 'Renew inlet valves',
      kind: 'renew',
      at: 'sealOut',
      positions: ['inletValve'],
      limit: { hours: 1000 },
      minutes: 4,
    },
    {
      key: 'seals',
      name: 'Renew seals',
      kind: 'renew',
      at: 'sealOut',
      positions: ['seal'],
      limit: { hours: 600 },
      minutes: 3,
    },
    {
      key: 'injector',
      name: 'Renew injector cone',
      kind: 'renew',
      positions: ['injector'],
      limit: { hours: 800 },
      minutes: 6,
      steps: [
        step('fit', 'renew', 'Fit it.', { part: 'cone', orientation: { face: 'taper', towards: 'pump' } }),
      ],
    },
    {
      key: 'startAssist',
      name: 'Renew start-assist ball',
      kind: 'renew',
      at: 'unloader',
      positions: ['startBall'],
      limit: { hours: 2000 },
      minutes: 3,
      paths: [
        {
          key: 'ball',
          name: 'Ball and spring',
          minutes: 1,
          uses: [{ part: 'ballSpring', quantity: 1, spot: 'startAssist' }],
        },
      ],
      steps: [
        step('ball', 'renew', 'The ball goes in first.', { part: 'ball' }),
        step('spring', 'renew', 'Then its spring.', { part: 'ballSpring' }),
      ],
    },
  ],
}

/** D: two people or a hoist, chevron packings, a stack jacked out, gasket measured, two-stage diagonal. */
export const process = {
  ...frame('H900', 'heavy process triplex'),
  repeats: [
    { key: 'cylinder', name: 'cylinder', count: 3 },
    {
      key: 'holderScrew',
      name: 'holder screw',
      count: 6,
      inside: { repeat: 'cylinder', at: [1, 1, 2, 2, 3, 3] },
    },
  ],
  positions: [
    {
      key: 'packing',
      name: 'Chevron packing',
      zone: 'all',
      sort: 'seal',
      repeat: 'cylinder',
      part: 'chevron',
      pieces: 4,
    },
    {
      key: 'suctionValve',
      name: 'Suction valve',
      zone: 'all',
      sort: 'valve',
      repeat: 'cylinder',
      part: 'valve',
    },
    {
      key: 'dischargeValve',
      name: 'Discharge valve',
      zone: 'all',
      sort: 'valve',
      repeat: 'cylinder',
      part: 'valve',
    },
  ],
  parts: [
    { key: 'chevron', name: 'Chevron ring', oriented: true },
    { key: 'packingRing', name: 'Packing ring' },
    { key: 'support', name: 'Support' },
    { key: 'valve', name: 'Valve' },
    { key: 'gasket', name: 'Head gasket' },
  ],
  kits: [{ key: 'gaskets', name: 'Gasket set', holds: [{ part: 'gasket', quantity: 1 }] }],
  tools: [
    { key: 'jackScrews', name: 'Jack screws of the valve holder', temporary: true },
    { key: 'hoist', name: 'Hoist' },
  ],
  fasteners: [
    {
      key: 'headBolt',
      name: 'Head bolts',
      count: 4,
      extensionMm: 60,
      torque: {
        state: 'stated',
        value: 210,
        unit: 'N·m',
        stages: [100, 210],
        source: 'page 3',
        verified: true,
      },
      pattern: 'crissCross',
      layout: [
        { x: -1, y: 1 },
        { x: 1, y: 1 },
        { x: 1, y: -1 },
        { x: -1, y: -1 },
      ],
    },
  ],
  access: [
    {
      key: 'head',
      name: 'Head off',
      openMinutes: 25,
      closeMinutes: 40,
      open: [
        step('lift', 'stripDown', 'Lift the head.', {
          people: 2,
          lift: '60 kg, or a hoist',
          tools: ['hoist'],
        }),
      ],
      close: [
        step('gasket', 'rebuild', 'Measure the gasket.', {
          measure: { what: 'thickness', unit: 'mm', min: 1.9, max: 2.1 },
        }),
        step('first', 'rebuild', 'First stage.', { fastener: 'headBolt', stage: 1 }),
        step('second', 'rebuild', 'Second stage.', { fastener: 'headBolt', stage: 2 }),
      ],
      consumes: [{ part: 'gasket', quantity: 1, spot: 'head' }],
    },
    {
      key: 'valveStack',
      name: 'Valve stack out',
      repeat: 'cylinder',
      openMinutes: 10,
      closeMinutes: 12,
      open: [
        step('jack', 'stripDown', 'Jack the holder out.', {
          temporary: { tool: 'jackScrews', goes: 'in' },
          count: { what: 'turns', min: 4, max: 20 },
        }),
        step('push', 'stripDown', 'Push the stack out from the plug below.', { photo: true }),
        step('jackOut', 'stripDown', 'Take the jack screws out.', {
          temporary: { tool: 'jackScrews', goes: 'out' },
        }),
      ],
      stack: [{ part: 'valve' }, { part: 'valve' }],
    },
  ],
  tasks: [
    {
      key: 'packings',
      name: 'Renew packings',
      kind: 'renew',
      at: 'head',
      positions: ['packing'],
      limit: { hours: 1500 },
      minutes: 15,
      steps: [
        step('fit', 'renew', 'Each ring by itself.', {
          part: 'chevron',
          orientation: { face: 'lip', towards: 'pressure' },
        }),
      ],
    },
    {
      key: 'suction',
      name: 'Renew suction valves',
      kind: 'renew',
      at: 'valveStack',
      positions: ['suctionValve'],
      limit: { hours: 2000 },
      minutes: 6,
    },
    {
      key: 'discharge',
      name: 'Renew discharge valves',
      kind: 'renew',
      at: 'valveStack',
      positions: ['dischargeValve'],
      limit: { hours: 2000 },
      minutes: 6,
    },
  ],
}

/** E: pulled off its keyed shaft; halves under spring load drawn together while the shaft is turned. */
export const axial = {
  ...frame('X2', 'small axial pump'),
  repeats: [{ key: 'piston', name: 'piston', count: 3 }],
  positions: [
    {
      key: 'oilSeal',
      name: 'Piston oil seal',
      zone: 'all',
      sort: 'oilSeal',
      repeat: 'piston',
      part: 'oilSeal',
    },
    { key: 'oil', name: 'Oil', zone: 'all', sort: 'oil', part: 'oil', pieces: 0.14 },
  ],
  parts: [
    { key: 'oilSeal', name: 'Oil seal' },
    { key: 'oil', name: 'Oil', unit: 'L', consumable: true },
  ],
  fluids: [
    {
      key: 'oil',
      name: 'Oil',
      position: 'oil',
      grade: 'as stated; another grade foams',
      litres: 0.14,
      level: '12 mm above the swash plate',
      doubt: '12 mm on page 2, 10 to 14 mm on page 5.',
    },
  ],
  access: [
    {
      key: 'shaft',
      name: 'Off its motor shaft',
      openMinutes: 8,
      closeMinutes: 8,
      close: [
        step('key', 'rebuild', 'Key in its slot.', { orientation: { face: 'flat', towards: 'motor' } }),
      ],
    },
    {
      key: 'halves',
      name: 'Housing halves apart',
      parent: 'shaft',
      openMinutes: 6,
      closeMinutes: 9,
      open: [
        step('release', 'stripDown', 'Release all bolts evenly.', {
          caution: 'Springs under load: never one bolt alone.',
        }),
      ],
      close: [
        step('turn', 'rebuild', 'Turn the shaft.', {
          withNext: true,
          doubt: 'Clockwise in the text, the other way in the drawing.',
        }),
        step('draw', 'rebuild', 'Draw the halves together evenly.', {
          undo: 'It binds: loosen, realign, start again.',
        }),
      ],
    },
  ],
  tasks: [
    {
      key: 'oilSeals',
      name: 'Renew oil seals',
      kind: 'renew',
      at: 'halves',
      positions: ['oilSeal'],
      limit: { hours: 500 },
      minutes: 5,
    },
    {
      key: 'oil',
      name: 'Change oil',
      kind: 'change',
      at: 'shaft',
      positions: ['oil'],
      limit: { hours: 300, days: 365 },
      minutes: 10,
      steps: [
        step('level', 'renew', 'Fill above the swash plate.', {
          part: 'oil',
          measure: { what: 'height above the swash plate', unit: 'mm', min: 10, max: 14 },
        }),
      ],
    },
  ],
}

/** H: strokes, weep holes in drips a minute, zero verified before anything is opened. */
export const intensifier = {
  ...frame('J90', 'waterjet cutting pump, intensifier'),
  usage: 'strokes',
  repeats: [{ key: 'end', name: 'end', count: 2, labels: ['left end', 'right end'] }],
  positions: [
    { key: 'hpSeal', name: 'High-pressure seal', zone: 'all', sort: 'seal', repeat: 'end', part: 'hpSeal' },
    { key: 'checkValve', name: 'Check valve', zone: 'all', sort: 'valve', repeat: 'end', part: 'checkValve' },
    { key: 'bleedDown', name: 'Bleed-down valve', zone: 'all', sort: 'valve', part: 'bleedDown' },
  ],
  parts: [
    { key: 'hpSeal', name: 'High-pressure seal' },
    { key: 'checkValve', name: 'Check valve' },
    { key: 'bleedDown', name: 'Bleed-down valve' },
  ],
  access: [
    {
      key: 'end',
      name: 'End cap off',
      repeat: 'end',
      openMinutes: 12,
      closeMinutes: 15,
      open: [
        step('zero', 'stripDown', 'Verify zero at the attenuator.', {
          gate: true,
          measure: { what: 'pressure left', unit: 'MPa', min: 0, max: 0 },
          caution: 'Water at 400 MPa cuts: trained people only.',
        }),
      ],
    },
  ],
  tasks: [
    {
      key: 'hpSeals',
      name: 'Renew high-pressure seals',
      kind: 'renew',
      at: 'end',
      positions: ['hpSeal'],
      limit: { hours: 1_500_000 },
      minutes: 10,
    },
    {
      key: 'checkValves',
      name: 'Renew check valves',
      kind: 'renew',
      at: 'end',
      positions: ['checkValve'],
      limit: { hours: 3_000_000 },
      minutes: 8,
    },
    {
      key: 'bleedDown',
      name: 'Renew bleed-down valve',
      kind: 'renew',
      at: 'end',
      positions: ['checkValve'],
      limit: { hours: 4_000_000 },
      minutes: 8,
    },
    {
      key: 'weep',
      name: 'Count weep-hole drips',
      kind: 'inspect',
      positions: ['hpSeal'],
      limit: { hours: 200_000, days: 7 },
      minutes: 2,
      steps: [
        step('count', 'inspect', 'Count for a minute.', {
          measure: { what: 'drips', unit: 'drips/min', min: 0, max: 12 },
        }),
      ],
    },
  ],
}

/** I: chemical cautions of its own, strainer, soft valves, a branch on what is found. */
export const chemical = {
  ...frame('M12', 'low-pressure chemical diaphragm pump'),
  repeats: [{ key: 'chamber', name: 'chamber', count: 2 }],
  positions: [
    {
      key: 'diaphragm',
      name: 'Diaphragm',
      zone: 'all',
      sort: 'seal',
      repeat: 'chamber',
      part: 'diaphragm',
      synonyms: ['membrane'],
    },
    { key: 'strainer', name: 'Strainer', zone: 'all', sort: 'filter', part: 'strainer' },
  ],
  parts: [
    { key: 'diaphragm', name: 'Diaphragm', material: 'EPDM', doubt: 'EPDM on page 2, FKM on page 6.' },
    { key: 'strainer', name: 'Strainer' },
  ],
  access: [
    {
      key: 'head',
      name: 'Head off',
      openMinutes: 4,
      closeMinutes: 5,
      open: [
        step('look', 'stripDown', 'Look at the diaphragm.', {
          asks: { question: 'swollen', answers: ['flat', 'swollen or sticky'] },
        }),
      ],
      close: [
        step('suit', 'rebuild', 'Ask which chemical it pumps before the same material goes in again.', {
          when: { question: 'swollen', is: 'swollen or sticky' },
        }),
      ],
    },
  ],
  tasks: [
    {
      key: 'diaphragms',
      name: 'Renew diaphragms',
      kind: 'renew',
      at: 'head',
      positions: ['diaphragm'],
      limit: { hours: 800, days: 730 },
      minutes: 4,
    },
    {
      key: 'strainer',
      name: 'Clean strainer',
      kind: 'change',
      positions: ['strainer'],
      limit: { days: 30 },
      minutes: 5,
    },
  ],
  makeSafe: [
    step('board', 'makeSafe', 'Hang our board on the chemical tank.', { own: true }),
    step('rinse', 'makeSafe', 'Rinse the chemical side with water first.', {
      gate: true,
      caution: 'Hypochlorite never meets acid, ammonia or antifreeze. Gloves and eye protection.',
    }),
  ],
}
