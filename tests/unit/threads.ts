/** A package under the reader of GeoTIFFs takes every thread without data for a broken worker of its own. */
import threads from 'node:worker_threads';

(threads as { workerData: unknown }).workerData ??= {};
