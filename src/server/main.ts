import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { makeApp } from './app';

const root = join(import.meta.dirname, '../..');
const host = process.env['HOST'] ?? '127.0.0.1';
const port = Number(process.env['PORT'] ?? 4680);
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error(`PORT is “${process.env['PORT']}”; it has to be a whole number from 1 to 65535.`);
  process.exit(1);
}
const folders = { app: join(root, 'dist'), library: join(root, 'build/library'), demo: join(root, 'build/demo') };
if (!existsSync(join(folders.app, 'index.html'))) {
  console.error('The app is not built yet. Run: npm run build');
  process.exit(1);
}
const server = makeApp(folders, { openDemo: process.argv.includes('--demo'), hosts: [host] }).listen(
  port,
  host,
  (error?: Error) => {
    if (error) return;
    console.log(`Jackplane is ready at http://${host === '127.0.0.1' ? 'localhost' : host}:${port}`);
  },
);
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken. Choose another: PORT=${port + 1} npm start`
      : `The server could not start: ${error.message}`,
  );
  process.exit(1);
});
