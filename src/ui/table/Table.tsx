import type { ComponentProps } from 'react'

/**
 * A table's parts as plain elements, styled in globals.css (`table.rows`): lists have hundreds of cells,
 * and a component with a style sheet of its own in each of them would be most of the page's work.
 */
export function Table({ className = '', ...props }: ComponentProps<'table'>) {
  return <table className={`rows ${className}`.trim()} {...props} />
}

export function TableHead(props: ComponentProps<'thead'>) {
  return <thead {...props} />
}

export function TableBody(props: ComponentProps<'tbody'>) {
  return <tbody {...props} />
}

export function TableRow(props: ComponentProps<'tr'>) {
  return <tr {...props} />
}

/** A cell of the body; what names its row is a `RowHead`. */
export function TableCell(props: ComponentProps<'td'>) {
  return <td {...props} />
}

/** A cell of the head. */
export function HeadCell(props: ComponentProps<'th'>) {
  return <th scope="col" {...props} />
}

export function RowHead(props: ComponentProps<'th'>) {
  return <th scope="row" {...props} />
}
