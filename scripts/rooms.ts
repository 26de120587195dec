// Each room of the code is checked with the names that exist there: core and the workers have neither a page nor files, the server has no page.
import { spawnSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';

const ROOMS = join(import.meta.dirname, '../rooms');
const failed = readdirSync(ROOMS).filter(
  (room) => spawnSync('npx', ['tsc', '-p', join(ROOMS, room)], { stdio: 'inherit' }).status !== 0,
);
process.exit(failed.length ? 1 : 0);
