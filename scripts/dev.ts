// `npm run dev`: the server for library and demo, and Vite in front of it with hot reloading.
import { spawn } from 'node:child_process';

const server = spawn('node', ['--import', 'tsx', 'src/server/main.ts', '--demo'], { stdio: 'inherit' });
const vite = spawn('npx', ['vite'], { stdio: 'inherit' });
const stop = () => [server, vite].forEach((child) => child.kill());
process.on('SIGINT', stop);
vite.on('exit', stop);
