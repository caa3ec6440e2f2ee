export type Section =
  'today' | 'hours' | 'fleet' | 'plan' | 'sheets' | 'stores' | 'winter' | 'evidence' | 'models' | 'settings'

const paths: Record<Section, React.ReactNode> = {
  today: (
    <>
      <path d="M3 6h9v8H3z" fill="currentColor" />
      <path d="M15 3v14" />
    </>
  ),
  hours: <path d="M2.5 5.5h15v9h-15zM7.5 5.5v9M12.5 5.5v9" />,
  fleet: (
    <>
      <path d="M2.5 3.5h3.5v13H2.5zM8 3.5h3.5v13H8zM13.5 3.5H17v13h-3.5z" />
      <path d="M2.5 9h3.5v7.5H2.5zM8 12h3.5v4.5H8zM13.5 7H17v9.5h-3.5z" fill="currentColor" />
    </>
  ),
  plan: <path d="M1.5 10Q10 2 18.5 10 10 18 1.5 10ZM10 5v10" />,
  sheets: <path d="m3 5 1.5 1.5L7 4M10 5.5h7M3 10.5 4.5 12 7 9.5M10 11h7M3 16l1.5 1.5L7 15M10 16.5h7" />,
  stores: <path d="M2.5 17.5v-14M17.5 17.5v-14M2.5 9.5h15M2.5 16h15M5 9V5.5h4V9M11 15.5v-3.5h4v3.5" />,
  winter: (
    <path d="M10 1.5v17M2.6 5.8l14.8 8.5M17.4 5.8 2.6 14.3M7.8 3.2 10 5.3l2.2-2.1M7.8 16.8 10 14.7l2.2 2.1" />
  ),
  evidence: <path d="M4.5 2.5h7.5l4 4v11h-11.5zM7 11.5l2 2 4-4.5" />,
  models: (
    <>
      <path d="m10 2 7 4v8l-7 4-7-4V6Z" />
      <circle cx="10" cy="10" r="3" />
    </>
  ),
  settings: (
    <>
      <path d="M2.5 6h15M2.5 14h15" />
      <circle cx="7" cy="6" r="2.2" fill="var(--ground)" />
      <circle cx="13" cy="14" r="2.2" fill="var(--ground)" />
    </>
  ),
}

export function SectionIcon({ section }: { section: Section }) {
  return (
    <svg
      width="20"
      height="20"
      viewBox="0 0 20 20"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.5"
      aria-hidden
    >
      {paths[section]}
    </svg>
  )
}

/** Atelier's mark: three cylinders at three levels. */
export function AtelierMark({ size = 20 }: { size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 20 20"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.3"
      aria-hidden
    >
      <path d="M1.8 2.5v15h3.4v-15M8.3 2.5v15h3.4v-15M14.8 2.5v15h3.4v-15" />
      <path
        d="M1.8 10h3.4v7.5H1.8zM8.3 6.5h3.4v11H8.3zM14.8 12h3.4v5.5h-3.4z"
        fill="currentColor"
        stroke="none"
      />
    </svg>
  )
}
