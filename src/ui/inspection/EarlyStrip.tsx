/** The first hours after a service, an hour a cell: solid is worked, outline still to come. */
export function EarlyStrip({
  worked,
  afterHours,
  unit,
}: {
  worked: number
  afterHours: number
  unit: string
}) {
  const cells = 20
  const done = Math.min(cells, (worked / afterHours) * cells)
  const late = worked >= afterHours
  const colour = late ? 'var(--brass)' : 'var(--moss)'
  return (
    <svg
      width={cells * 7}
      height="10"
      role="img"
      aria-label={`${Math.round(worked)} of ${Math.round(afterHours)} ${unit} worked since the service`}
    >
      {Array.from({ length: cells }, (_, index) => (
        <g key={index} transform={`translate(${index * 7} 0)`}>
          <rect x="0.5" y="0.5" width="5" height="9" fill="none" stroke="var(--edge)" />
          {done > index && (
            <rect x="0" y="0" width={Math.min(1, done - index) * 6} height="10" fill={colour} />
          )}
        </g>
      ))}
    </svg>
  )
}
