// Test files run side by side: each worker keeps what parsers leave in a folder of its own.
const { join } = require('node:path');

process.env.CACHE_DIR = join(process.cwd(), '.data', 'cache', `test-${process.env.JEST_WORKER_ID}`);
