import '@fontsource-variable/archivo/wdth.css'
import './globals.css'
import './bench.css'
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript'
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter'
import type { Metadata, Viewport } from 'next'
import { headers } from 'next/headers'
import { connection } from 'next/server'
import type { ReactNode } from 'react'
import { Ways } from '@/ui/frame/Ways'
import { Hatches } from '@/ui/graphics/Hatches'
import { AppTheme } from '@/ui/theme/AppTheme'

export const metadata: Metadata = {
  title: { default: 'Atelier', template: '%s · Atelier' },
  description: 'Preventive pump servicing across a fleet of machines.',
}

export const viewport: Viewport = { width: 'device-width', initialScale: 1 }

export default async function RootLayout({ children }: { children: ReactNode }) {
  // One company's live data: nothing is rendered before a request.
  await connection()
  const nonce = (await headers()).get('x-nonce') ?? undefined
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="data-theme" defaultMode="system" nonce={nonce} />
        <Hatches />
        <Ways />
        <AppRouterCacheProvider options={{ enableCssLayer: false, nonce }}>
          <AppTheme>{children}</AppTheme>
        </AppRouterCacheProvider>
      </body>
    </html>
  )
}
