import { runTiers } from './lib/runTiers.mjs';
import { check } from './lib/tiers.mjs';

/** Format, lint, types, layers and the core's tests; two minutes at most. */
runTiers({ needs: [], tiers: {}, all: check });
