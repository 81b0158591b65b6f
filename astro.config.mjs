import { defineConfig, passthroughImageService } from 'astro/config';
import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  image: { service: passthroughImageService() },
  devToolbar: { enabled: false },
  vite: {
    plugins: [tailwindcss()],
    worker: { format: 'es' },
    optimizeDeps: { include: ['comlink', 'd3-contour'] },
  },
});
