'use client'

import Divider from '@mui/material/Divider'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import ListItemIcon from '@mui/material/ListItemIcon'
import { SectionIcon } from '../graphics/SectionIcon'
import { Link } from './Link'
import type { RailSection } from './railSection'

type Props = {
  anchor: HTMLElement
  sections: RailSection[]
  company: string
  person: string
  role: string
  signOut: () => Promise<void>
  onClose: () => void
}

/** On a phone: the sections that this role seldom needs there, and the way out. */
export default function MoreMenu({ anchor, sections, company, person, role, signOut, onClose }: Props) {
  return (
    <Menu
      open
      transitionDuration={0}
      anchorEl={anchor}
      onClose={onClose}
      anchorOrigin={{ vertical: 'top', horizontal: 'right' }}
      transformOrigin={{ vertical: 'bottom', horizontal: 'right' }}
      slotProps={{ list: { 'aria-label': 'More sections' } }}
    >
      {sections.map(({ section, label, href }) => (
        <MenuItem key={section} component={Link} href={href} onClick={onClose} sx={{ minHeight: 48 }}>
          <ListItemIcon>
            <SectionIcon section={section} />
          </ListItemIcon>
          {label}
        </MenuItem>
      ))}
      <Divider />
      <MenuItem onClick={() => void signOut()} sx={{ minHeight: 48 }}>
        Sign out
        <span className="second more-who">
          {person}, {role.toLowerCase()}, {company}
        </span>
      </MenuItem>
    </Menu>
  )
}
