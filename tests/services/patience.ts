import { TIMES } from '../campaign';

// A fresh schema with the whole demo company takes two minutes on a machine with much else to do. No test is about
// time: who waits too long here hangs.
jest.setTimeout(600_000 * TIMES);
