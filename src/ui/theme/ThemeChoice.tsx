'use client'

import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useColorScheme } from '@mui/material/styles'
import { useSyncExternalStore } from 'react'

const never = () => () => undefined

/** Light, dark, or as the device is set; kept on this device. */
export function ThemeChoice() {
  const { mode, setMode } = useColorScheme()
  // The server cannot know the device's choice: the buttons are marked once the page is alive.
  const alive = useSyncExternalStore(
    never,
    () => true,
    () => false,
  )
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      aria-label="Theme"
      value={alive ? (mode ?? 'system') : null}
      onChange={(_event, choice: 'light' | 'dark' | 'system' | null) => choice && setMode(choice)}
    >
      <ToggleButton value="light">Light</ToggleButton>
      <ToggleButton value="dark">Dark</ToggleButton>
      <ToggleButton value="system">As the device</ToggleButton>
    </ToggleButtonGroup>
  )
}
