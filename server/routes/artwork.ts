import { addFont, clearFont, listFonts, putFontAway } from '../services/fonts';
import { packedReading, pictureOf, takeFile, takePicture } from '../services/readings';
import type { Handlers } from './mount';
import { packed, picture } from './sent';

/** Files, what they read as, pictures to trace, typefaces. */
export const artworkRoutes = {
  'POST /api/files': ({ body, watch, services }) => takeFile(services, body.name, body.bytes, watch),
  'POST /api/pictures': ({ body, services }) => takePicture(services, body.bytes),
  'GET /api/readings': async ({ query, services }) =>
    packed(await packedReading(services, query.source, services.who !== null), {
      'Cache-Control': 'private, no-cache',
    }),
  'GET /api/files/{hash}/picture': async ({ params, query, services }) =>
    picture(await pictureOf(services, params.hash, query), 'max-age=86400'),
  'GET /api/fonts': ({ services }) => listFonts(services.db),
  'POST /api/fonts': ({ body, services }) => addFont(services, body.bytes),
  'POST /api/fonts/{font}/put-away': ({ params, services }) => putFontAway(services.db, params.font, true),
  'POST /api/fonts/{font}/bring-back': ({ params, services }) => putFontAway(services.db, params.font, false),
  'POST /api/fonts/{font}/clear': ({ params, services }) => clearFont(services.db, params.font),
} satisfies Partial<Handlers>;
