/** After the export: a worker that keeps the application on the device, so that it opens without the server. */
const { generateSW } = require('workbox-build');
const { join } = require('node:path');

const dist = join(__dirname, 'dist');
generateSW({
  globDirectory: dist,
  globPatterns: ['**/*.{js,html,svg,webmanifest,ttf,woff2}'],
  swDest: join(dist, 'sw.js'),
  // Its own code comes with it: nothing is fetched from elsewhere.
  inlineWorkboxRuntime: true,
  sourcemap: false,
  maximumFileSizeToCacheInBytes: 6 * 1024 * 1024,
  // File names carry a hash of their content.
  dontCacheBustURLsMatching: /-[0-9a-f]{32}\./,
  navigateFallback: '/index.html',
  navigateFallbackDenylist: [/^\/api\//],
  // A new version waits until the person wants it.
  skipWaiting: false,
  clientsClaim: true,
  runtimeCaching: [
    {
      urlPattern: ({ url, request }) => request.method === 'GET' && /\/photos\//.test(url.pathname),
      handler: 'CacheFirst',
      options: { cacheName: 'photos', expiration: { maxEntries: 200 }, cacheableResponse: { statuses: [200] } },
    },
    {
      // What is read may be shown from the device when the server does not answer; entries and papers are asked for afresh.
      urlPattern: ({ url, request }) =>
        request.method === 'GET' &&
        /^\/api\/(machines|shop|orders)(\/|$)/.test(url.pathname) &&
        !/\/(events|record|owner|dates)/.test(url.pathname),
      handler: 'NetworkFirst',
      options: {
        cacheName: 'read',
        networkTimeoutSeconds: 4,
        expiration: { maxEntries: 120 },
        cacheableResponse: { statuses: [200] },
      },
    },
  ],
}).then(
  ({ count, size }) => process.stdout.write(`service worker: ${count} files, ${Math.round(size / 1024)} kB\n`),
  (error) => {
    process.stderr.write(`${error.message}\n`);
    process.exit(1);
  },
);
