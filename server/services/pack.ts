import { gunzipSync, gzipSync } from 'node:zlib';

/** Gzipped JSON, the form in which large computed things are stored and sent on. */
export const pack = (value: unknown): Buffer => gzipSync(JSON.stringify(value), { level: 5 });

export const unpack = <T>(bytes: Uint8Array): T => JSON.parse(gunzipSync(bytes).toString('utf8')) as T;
