import type { NextConfig } from 'next'

const config: NextConfig = {
  // Native modules and Sequelize's dynamic dialect loading do not survive bundling.
  serverExternalPackages: ['sequelize', 'sqlite3', 'umzug', 'tar'],
  poweredByHeader: false,
  // `npm test` checks the types, those of the tests and scripts too; a build does not do it once more.
  typescript: { ignoreBuildErrors: true },
  experimental: {
    // Kept for the next build it takes 300 MB and half as long again to write, and most are built once.
    turbopackFileSystemCacheForBuild: false,
    // A server that lives for one test reads the code of those pages only that are asked for.
    preloadEntriesOnStart: process.env.ATELIER_LAZY !== '1',
    // The whole application is one company's live data: nothing is kept between visits to a page.
    staleTimes: { dynamic: 0, static: 30 },
    // A pump model may have two million characters, of up to three bytes each in text as it is typed.
    serverActions: { bodySizeLimit: '6mb' },
  },
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'X-Frame-Options', value: 'DENY' },
        { key: 'Referrer-Policy', value: 'same-origin' },
        {
          key: 'Permissions-Policy',
          value: 'camera=(self), microphone=(), geolocation=(), payment=(), usb=()',
        },
      ],
    },
  ],
}

export default config
