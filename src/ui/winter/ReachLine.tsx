import { methodNames, zoneNames, type Reach, type Zone } from '@/core/winter'

/** Zones along the water, as the line draws them. */
const along: Zone[] = ['tanks', 'pump', 'bypass', 'coil', 'hose', 'chemical']

/**
 * How far what is put in goes, from tank to nozzle: filled where fluid stands, three dashes for air, an outline
 * where it is drained, a cross where it is left. Solid has been done and proved, outlined is still to do.
 * Drawn by the style sheet: a yard has hundreds of them.
 */
export function ReachLine({ reach }: { reach: Reach }) {
  const shown = along.flatMap((zone) => reach.find((each) => each.zone === zone) ?? [])
  const words = ({ zone, method, state }: Reach[number]) =>
    `${zoneNames[zone].toLowerCase()} ${methodNames[method].toLowerCase()}${state === 'protected' ? ', done' : ''}`
  return (
    <span role="img" aria-label={shown.map(words).join('; ')} className="reach">
      {shown.map(({ zone, method, state }) => (
        <i key={zone} className={`${drawnAs[method]} ${markOf[state] ?? ''}`} />
      ))}
    </span>
  )
}

const drawnAs: Record<Reach[number]['method'], string> = {
  through: 'fluid',
  toNozzle: 'fluid',
  protector: 'fluid',
  blowOut: 'air',
  drain: 'drained',
  leave: 'asIs',
}
const markOf: Partial<Record<Reach[number]['state'], string>> = {
  protected: 'done',
  void: 'bad',
  failed: 'bad',
  exposed: 'bad',
}
