import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  // It serves its own machine: packing would only cost time.
  compress: false,
  compiler: { styledComponents: true },
  serverExternalPackages: [
    'pg',
    'pg-copy-streams',
    'pino',
    'tinypool',
    // The rules of requests are kept in these packages themselves: bundled, each place would have a copy of its own.
    'class-transformer',
    'class-validator',
    'class-validator-jsonschema',
  ],
  // `bin/test` checks the types of the whole project, once.
  typescript: { ignoreBuildErrors: true },
  // Browsers ask for it by this name wherever a page has not told them of another.
  rewrites: async () => [{ source: '/favicon.ico', destination: '/icon.svg' }],
  agentRules: false,
  experimental: { agentUpgrade: false, preloadEntriesOnStart: false, serverActions: { bodySizeLimit: '4mb' } },
};

export default config;
