import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['mysql2', '@node-rs/argon2', 'pdfkit', 'bwip-js'],
  poweredByHeader: false,
  // npm run check has looked at the types of everything, tests included.
  typescript: { ignoreBuildErrors: true },
  distDir: process.env.VORRAT_DIST_DIR ?? '.next',
  outputFileTracingRoot: __dirname,
  turbopack: { root: __dirname },
};

export default config;
