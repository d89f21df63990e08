import { defineConfig } from 'vite';

/** Compiles the server, so that a start reads a few files in place of a thousand: its main program, and what runs in threads and processes of their own. */
export default defineConfig({
  logLevel: 'warn',
  build: {
    ssr: true,
    target: 'node20',
    rolldownOptions: {
      input: {
        main: 'src/main.ts',
        'database-maker': 'src/database-maker.ts',
        'reading.worker': 'src/services/reading/reading.worker.ts',
        'pdf.worker': 'src/services/review/pdf.worker.ts',
        'picture.worker': 'src/services/photos/picture.worker.ts',
      },
      output: { chunkFileNames: '[name]-[hash].js' },
    },
  },
});
