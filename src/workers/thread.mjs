import { workerData } from 'node:worker_threads';
import { register } from 'tsx/cjs/api';

// A thread begins with plain JavaScript; from here on TypeScript is understood, with the paths of the project.
register();
const { createRequire } = await import('node:module');
createRequire(import.meta.url)(workerData.file);
