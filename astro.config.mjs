import { defineConfig, passthroughImageService } from 'astro/config';
import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';

/** Building a schema does nothing else: one that nobody reads is left out. */
const treeshake = { manualPureFunctions: ['Type'] };

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  image: { service: passthroughImageService() },
  devToolbar: { enabled: false },
  vite: {
    plugins: [tailwindcss()],
    worker: { format: 'es', rollupOptions: { treeshake } },
    // Each file that is fetched costs its headers and a way there and back: what is small goes with its neighbours.
    build: {
      rollupOptions: {
        treeshake,
        output: {
          experimentalMinChunkSize: 3000,
          // What is seldom wanted, by a name that the build knows it by (scripts/build.mjs).
          manualChunks: (id) =>
            /\/node_modules\/(chart\.js|@kurkle)\//.test(id)
              ? 'charts'
              : /\/node_modules\/(proj4|wkt-parser|mgrs)\//.test(id)
                ? 'projection'
                : /\/reasons\.(ts|json)$/.test(id)
                  ? 'reasons'
                  : undefined,
        },
      },
    },
    optimizeDeps: { include: ['comlink', 'd3-contour'] },
  },
});
