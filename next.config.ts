import type { NextConfig } from 'next';

export default {
  poweredByHeader: false,
  // Types are checked by `npm test`, once and with our own settings.
  typescript: { ignoreBuildErrors: true },
  // Addresses are normalised by Trivet, once; a redirect to another spelling would tell that a page exists.
  skipTrailingSlashRedirect: true,
  serverExternalPackages: ['@electric-sql/pglite', '@node-rs/argon2', 'drizzle-orm'],
  headers: async () => [
    {
      source: '/desk/:path*',
      headers: [
        { key: 'X-Frame-Options', value: 'DENY' },
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'Referrer-Policy', value: 'same-origin' },
      ],
    },
  ],
} satisfies NextConfig;
