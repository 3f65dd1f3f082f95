// A fresh schema with the demo company takes some seconds on a busy machine; tests and hooks wait a minute.
jest.setTimeout(60_000);
