// A worker thread does not inherit the loader of its parent: it registers its own before the first TypeScript file.
import { workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
await import(workerData.entry);
