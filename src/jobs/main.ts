import { depsFromEnvironment } from '@/services/depsFromEnvironment';
import { runWorker } from './worker';

/** The worker process: started beside the server, ends with its start command. */
const stopped = new AbortController();
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => stopped.abort());
process.on('disconnect', () => stopped.abort());

const deps = depsFromEnvironment(process.env, 4);
process.send?.('ready');
runWorker(deps, stopped.signal)
  .then(() => deps.pool.end())
  .then(() => process.exit(0))
  .catch((e) => {
    console.error(e);
    process.exit(1);
  });
