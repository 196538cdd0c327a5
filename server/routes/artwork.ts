import { Router } from 'express';
import { z } from 'zod';
import { sourceSchema } from '../../contracts/choices';
import { Trouble } from '../problem';
import type { ReadingServices } from '../services/readings';
import { addFont, listFonts, packedReading, pictureOf, takeFile } from '../services/readings';
import { handle, parse } from './guard';
import { answerInSteps, oneFile, uploadedFile } from './upload';

const pictureSchema = z.object({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  width: z.coerce.number().int().min(16).max(4000),
});

/** Files, what they read as, pictures to trace, typefaces. */
export function artworkRoutes(services: ReadingServices): Router {
  const router = Router();

  router.post(
    '/files',
    ...oneFile,
    handle(async (request, response) => {
      const { name, bytes } = uploadedFile(request);
      await answerInSteps(request, response, (watch) => takeFile(services, name, bytes, watch));
    }),
  );

  router.get(
    '/readings',
    handle(async (request, response) => {
      const data = await packedReading(services, parse(sourceSchema, jsonOf(request.query.source)));
      response.set({
        'Content-Type': 'application/json',
        'Content-Encoding': 'gzip',
        'Cache-Control': 'private, no-cache',
      });
      response.end(data);
    }),
  );

  router.get(
    '/files/:hash/picture',
    handle(async (request, response) => {
      const { hash, width } = parse(pictureSchema, { ...request.params, ...request.query });
      const picture = await pictureOf(services, hash, width);
      response.set({ 'Content-Type': 'image/png', 'Cache-Control': 'private, max-age=86400' });
      response.end(Buffer.from(picture));
    }),
  );

  router.get(
    '/fonts',
    handle(async (_request, response) => response.json(await listFonts(services.db))),
  );

  router.post(
    '/fonts',
    ...oneFile,
    handle(async (request, response) => response.json(await addFont(services, uploadedFile(request).bytes))),
  );
  return router;
}

function jsonOf(text: unknown): unknown {
  try {
    return JSON.parse(String(text));
  } catch {
    throw new Trouble(400, 'bad-source', 'This is no source of artwork.');
  }
}
