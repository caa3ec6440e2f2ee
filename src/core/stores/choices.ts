export const partUnits = { piece: 'pieces', L: 'litres', mL: 'millilitres', g: 'grams' } as const
