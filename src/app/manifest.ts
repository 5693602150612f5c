import type { MetadataRoute } from 'next';

/** What a browser needs to install the app. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Stigmos',
    short_name: 'Stigmos',
    description: 'A painter’s room: paint that mixes as pigments.',
    start_url: '/',
    display: 'standalone',
    background_color: '#d9d7d2',
    theme_color: '#9a9a98',
    icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' }],
  };
}
