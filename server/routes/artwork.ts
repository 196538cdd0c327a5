import type { ReadingServices } from '../services/readings';
import { addFont, clearFont, listFonts, putFontAway } from '../services/fonts';
import { packedReading, pictureOf, takeFile, takePicture } from '../services/readings';
import type { Handlers } from './mount';
import { packed, picture } from './sent';

/** Files, what they read as, pictures to trace, typefaces. */
export const artworkRoutes = (services: ReadingServices) =>
  ({
    'POST /api/files': ({ body, watch }) => takeFile(services, body.name, body.bytes, watch),
    'POST /api/pictures': ({ body }) => takePicture(services, body.bytes),
    'GET /api/readings': async ({ query }) =>
      packed(await packedReading(services, query.source), { 'Cache-Control': 'private, no-cache' }),
    'GET /api/files/{hash}/picture': async ({ params, query }) =>
      picture(await pictureOf(services, params.hash, query), 'max-age=86400'),
    'GET /api/fonts': () => listFonts(services.db),
    'POST /api/fonts': ({ body }) => addFont(services, body.bytes),
    'POST /api/fonts/{font}/put-away': ({ params }) => putFontAway(services.db, params.font, true),
    'POST /api/fonts/{font}/bring-back': ({ params }) => putFontAway(services.db, params.font, false),
    'POST /api/fonts/{font}/clear': ({ params }) => clearFont(services.db, params.font),
  }) satisfies Partial<Handlers>;
