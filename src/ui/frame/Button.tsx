import type { ComponentProps } from 'react'

type Props = ComponentProps<'button'> & { variant?: 'contained' | 'outlined' | 'text' }

/**
 * A button, styled in globals.css under its name there. The component library's works its styles out anew for
 * each button at each drawing, on the server and in the browser: on a list with two buttons a row that was a
 * third of the time that the page took.
 */
export function Button({ variant = 'text', type = 'button', className = '', ...rest }: Props) {
  return (
    <button
      type={type}
      className={`MuiButton-root MuiButton-${variant} button-link ${className}`.trim()}
      {...rest}
    />
  )
}
