import { useEffect, useState } from 'react'

/** Draws anew every second while something counts. */
export function useTick(running: boolean): void {
  const [, setCount] = useState(0)
  useEffect(() => {
    if (!running) return
    const timer = setInterval(() => setCount((count) => count + 1), 1000)
    return () => clearInterval(timer)
  }, [running])
}
