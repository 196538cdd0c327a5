/**
 * What the server answers to, once: its routes, the pages' calls and the API description are all typed and made from
 * this table.
 */
import { z } from 'zod';
import { headAtSchema, jogSchema, sheetQuery, takenSchema } from './print';
import { TOOL_KINDS } from '../core/artwork/choices';
import type { Artwork } from '../core/readers/artwork';
import {
  changedSchema,
  changeSchema,
  fontSchema,
  orderDetailsSchema,
  orderListSchema,
  orderQuerySchema,
  orderSchema,
  takenPictureSchema,
  textOrderSchema,
} from './api';
import {
  cutActSchema,
  cutSchema,
  drawingSchema,
  guestSchema,
  howItWasSchema,
  saidSchema,
  queueSchema,
  sheetCodeSchema,
  recordSchema,
  resumeSchema,
  sharingSchema,
} from './cuts';
import {
  cutterChangeSchema,
  linkSchema,
  linkTestSchema,
  recipeChangeSchema,
  recipeHistorySchema,
  newCutterSchema,
  cutterQuerySchema,
  cutterStateSchema,
  filmChangeSchema,
  shopChangeSchema,
  filmSchema,
  filmTableSchema,
  shopSchema,
} from './shop';
import { applyPageSchema, datumSchema, mapPageSchema } from './bench';
import {
  calibrationSchema,
  knifeSchema,
  measuringSchema,
  putInSchema,
  setupSchema,
  paceSchema,
} from './calibrations';
import { fileSource, sourceSchema } from './choices';
import { fewestSchema, floorSchema, laneOrderSchema, moveSchema } from './floor';
import {
  hereSchema,
  logInSchema,
  newPersonSchema,
  ownChangeSchema,
  peopleSchema,
  personChangeSchema,
  sessionSchema,
  tabletSchema,
} from './people';

type Method = 'GET' | 'POST' | 'PATCH';

export interface Endpoint {
  readonly says: string;
  /** What stands in the address between braces. */
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  /** JSON body. */
  readonly takes?: z.ZodType;
  /** Multipart, one file in the field `file`. */
  readonly upload?: true;
  /** JSON, or the type of what comes instead. */
  readonly gives: z.ZodType | string;
}

const id = z.coerce.number<number>().int().min(1).max(2_000_000_000);
const byId = z.object({ id });
const byFilm = z.object({ film: z.string().max(60) });
const byFont = z.object({ font: z.string().max(60) });
const byPiece = z.object({ id, piece: z.string().max(200) });
const byStrip = z.object({ id, strip: z.string().max(200) });
const bySheet = z.object({ id, sheet: z.string().max(40) });
const byCutter = z.object({ cutter: z.string().max(60) });
const byRecipe = z.object({
  cutter: z.string().max(60),
  film: z.string().max(60),
  kind: z.enum(TOOL_KINDS),
});
const byHash = z.object({ hash: z.string().regex(/^[0-9a-f]{64}$/) });
/** JSON in a query. */
const inJson = <T extends z.ZodType>(schema: T) =>
  z
    .string()
    .max(100_000)
    .transform((text, context): unknown => {
      try {
        return JSON.parse(text);
      } catch {
        context.addIssue('is no JSON');
        return z.NEVER;
      }
    })
    .pipe(schema);
const films = z.array(filmSchema).readonly();
const fontList = z.array(fontSchema);
const nothing = z.object({});

export const ENDPOINTS = {
  'GET /api/health': { says: 'Whether the server has its database', gives: nothing },
  'GET /api/session': { says: 'Who is logged in here', gives: sessionSchema },
  'POST /api/session': { says: 'Log in', takes: logInSchema, gives: sessionSchema },
  'POST /api/session/end': { says: 'Log out', gives: sessionSchema },
  'POST /api/session/tablet': {
    says: "Make this a machine's tablet: it stays logged in as that machine",
    takes: tabletSchema,
    gives: sessionSchema,
  },
  'POST /api/session/here': {
    says: 'Say by PIN who is at the tablet',
    takes: hereSchema,
    gives: sessionSchema,
  },
  'POST /api/session/away': { says: 'Nobody is at the tablet any more', gives: sessionSchema },
  'PATCH /api/me': {
    says: 'Change the own password or PIN',
    takes: ownChangeSchema,
    gives: sessionSchema,
  },
  'GET /api/people': { says: 'Everybody who works here, or did', gives: peopleSchema },
  'POST /api/people': {
    says: 'Add somebody, with a password that is made up and shown this once',
    takes: newPersonSchema,
    gives: peopleSchema,
  },
  'PATCH /api/people/{id}': {
    params: byId,
    says: 'Change a name or a role',
    takes: personChangeSchema,
    gives: peopleSchema,
  },
  'POST /api/people/{id}/reset': {
    params: byId,
    says: 'Give somebody a new password, and no PIN',
    gives: peopleSchema,
  },
  'POST /api/people/{id}/remove': {
    params: byId,
    says: 'Remove somebody: what they did stays theirs',
    gives: peopleSchema,
  },
  'POST /api/people/{id}/bring-back': {
    params: byId,
    says: 'Have them back',
    gives: peopleSchema,
  },
  'GET /api/events': { says: 'What changes, as server-sent events', gives: 'text/event-stream' },
  'GET /api/shop': { says: 'Films, cutters and recipes', gives: shopSchema },
  'PATCH /api/films/{film}': {
    params: byFilm,
    says: 'Change a film',
    takes: filmChangeSchema,
    gives: films,
  },
  'PATCH /api/cutters/{cutter}': {
    params: byCutter,
    says: 'Change a cutter: what it is, what it reaches, how it is spoken to',
    takes: cutterChangeSchema,
    gives: shopSchema,
  },
  'POST /api/cutters': {
    says: 'Add a cutter as most of its kind are, to be corrected',
    takes: newCutterSchema,
    gives: shopSchema,
  },
  'POST /api/cutters/{cutter}/retire': {
    params: byCutter,
    says: 'Take a cutter out of use: nothing is planned for it any more',
    gives: shopSchema,
  },
  'POST /api/cutters/{cutter}/bring-back': {
    params: byCutter,
    says: 'Take it into use again',
    gives: shopSchema,
  },
  'GET /api/cutters/{cutter}/link': { params: byCutter, says: 'Where a cutter listens', gives: linkSchema },
  'PATCH /api/cutters/{cutter}/link': {
    params: byCutter,
    says: 'Say where it listens',
    takes: linkSchema,
    gives: linkSchema,
  },
  'POST /api/cutters/{cutter}/test': {
    params: byCutter,
    says: 'Ask it over its link, and tell how that went',
    gives: linkTestSchema,
  },
  'GET /api/cutters/{cutter}/calibrations': {
    params: byCutter,
    says: 'Calibrations of a cutter, the newest first',
    gives: z.array(calibrationSchema),
  },
  'POST /api/cutters/{cutter}/calibrations': {
    params: byCutter,
    says: 'Set up a calibration',
    takes: setupSchema,
    gives: calibrationSchema,
  },
  'GET /api/cutters/{cutter}/pace': {
    params: byCutter,
    says: 'How long its cuts took beside how long they were reckoned to take',
    gives: paceSchema,
  },
  'GET /api/knives': { says: 'Knives that are in use or in the drawer', gives: z.array(knifeSchema) },
  'POST /api/cutters/{cutter}/knife': {
    params: byCutter,
    says: 'Put a knife in; the one that was there goes into the drawer',
    takes: putInSchema,
    gives: z.array(knifeSchema),
  },
  'POST /api/knives/{id}/throw': {
    params: byId,
    says: 'Throw a knife away',
    gives: z.array(knifeSchema),
  },
  'POST /api/calibrations/{id}/raise': {
    params: byId,
    says: 'Raise the other recipes of that blade on the cutter by what a trial grid found the knife to want more',
    gives: shopSchema,
  },
  'PATCH /api/calibrations/{id}': {
    params: byId,
    says: 'Say what was measured of what was cut',
    takes: measuringSchema,
    gives: calibrationSchema,
  },
  'POST /api/calibrations/{id}/cut': {
    params: byId,
    says: 'Have the cutter draw, read or cut what a calibration needs',
    gives: calibrationSchema,
  },
  'POST /api/calibrations/{id}/stop': { params: byId, says: 'Stop that', gives: calibrationSchema },
  'POST /api/calibrations/{id}/keep': {
    params: byId,
    says: 'Set the machine to what a calibration found, or found earlier',
    gives: calibrationSchema,
  },
  'POST /api/calibrations/{id}/drop': { params: byId, says: 'Leave it at that', gives: calibrationSchema },
  'GET /api/calibrations/{id}/sheet.pdf': {
    params: byId,
    says: 'The sheet of crosses that is printed for a calibration',
    gives: 'application/pdf',
  },
  'POST /api/calibrations/{id}/print': {
    params: byId,
    says: "Send that sheet to the shop's printer",
    gives: z.object({ name: z.string() }),
  },
  'PATCH /api/cutters/{cutter}/recipes/{film}/{kind}': {
    params: byRecipe,
    says: 'Change how a film, or `*` for all, is cut on a cutter',
    takes: recipeChangeSchema,
    gives: shopSchema,
  },
  'POST /api/cutters/{cutter}/recipes/{film}/{kind}/clear': {
    params: byRecipe,
    says: 'Have a film cut as all films are',
    gives: shopSchema,
  },
  'GET /api/cutters/{cutter}/recipes/{film}/{kind}/history': {
    params: byRecipe,
    says: 'What a recipe was, and why it was changed, the newest first',
    gives: z.array(recipeHistorySchema),
  },
  'POST /api/recipe-changes/{id}/back': {
    params: byId,
    says: 'Go back to what a recipe was',
    gives: shopSchema,
  },
  'PATCH /api/shop': {
    says: 'Change what the shop sets for itself',
    takes: shopChangeSchema,
    gives: shopSchema,
  },
  'GET /api/films.csv': { says: 'All films as a table', gives: 'text/csv' },
  'POST /api/films': {
    says: 'Add and change films from a table',
    takes: filmTableSchema,
    gives: films,
  },
  'GET /api/orders': {
    query: orderQuerySchema,
    says: 'Orders: late ones first, then by their newest change',
    gives: orderListSchema,
  },
  'POST /api/orders': { says: 'Start an order from a graphic', upload: true, gives: orderSchema },
  'GET /api/orders/{id}': { params: byId, says: 'One order with its choices', gives: orderSchema },
  'GET /api/orders/{id}/sharing': {
    params: byId,
    says: 'What an order shares with others on its films',
    gives: sharingSchema,
  },
  'GET /api/orders/{id}/wanting': {
    params: byId,
    query: z.object({ film: z.string().max(60) }),
    says: 'Open orders that want the same film, those due about then first',
    gives: z.array(guestSchema),
  },
  'PATCH /api/orders/{id}': {
    params: byId,
    says: 'Name and due date',
    takes: orderDetailsSchema,
    gives: orderSchema,
  },
  'PATCH /api/orders/{id}/choices': {
    params: byId,
    says: 'Change choices, field by field',
    takes: changeSchema,
    gives: changedSchema,
  },
  'POST /api/orders/{id}/undo': { params: byId, says: 'Back to the choices before', gives: orderSchema },
  'POST /api/orders/{id}/redo': { params: byId, says: 'Forward again', gives: orderSchema },
  'POST /api/orders/text': {
    says: 'Start an order from typed text',
    takes: textOrderSchema,
    gives: orderSchema,
  },
  'POST /api/files': { says: 'Keep and read a file, to add it to an order', upload: true, gives: fileSource },
  'POST /api/pictures': {
    says: 'Keep a picture that is only looked at, such as one of the wall',
    upload: true,
    gives: takenPictureSchema,
  },
  'GET /api/readings': {
    query: z.object({ source: inJson(sourceSchema) }),
    says: 'What a source of artwork, as JSON, reads as',
    gives: z.custom<Artwork>(),
  },
  'GET /api/files/{hash}/picture': {
    params: byHash,
    query: z.object({
      width: z.coerce.number<number>().int().min(16).max(4000),
      page: z.coerce.number<number>().int().min(1).max(10_000).nullish(),
      box: fileSource.shape.box.optional(),
      font: fileSource.shape.font.optional(),
    }),
    says: 'A picture, at most so wide; of a drawing its page',
    gives: 'image/png',
  },
  'GET /api/fonts': { says: 'Typefaces', gives: fontList },
  'POST /api/fonts': { says: 'Bring a typeface', upload: true, gives: fontList },
  'POST /api/fonts/{font}/put-away': {
    params: byFont,
    says: "Put one of the shop's typefaces out of sight",
    gives: fontList,
  },
  'POST /api/fonts/{font}/bring-back': { params: byFont, says: 'Bring it back', gives: fontList },
  'POST /api/fonts/{font}/clear': {
    params: byFont,
    says: 'Take a typeface that was put away, and that no text is set in, out for good',
    gives: fontList,
  },
  'GET /api/orders/{id}/pieces/{piece}/original': {
    params: byPiece,
    says: "A piece's file as it came",
    gives: 'application/octet-stream',
  },
  'GET /api/orders/{id}/thumbnail.png': { params: byId, says: 'Picture of the artwork', gives: 'image/png' },
  'GET /api/orders/{id}/run-card.pdf': {
    params: byId,
    says: 'The run card on paper',
    gives: 'application/pdf',
  },
  'GET /api/orders/{id}/application': {
    params: byId,
    says: 'Weeding, taping and applying, film by film',
    gives: applyPageSchema,
  },
  'GET /api/orders/{id}/application.pdf': {
    params: byId,
    says: 'For weeding, taping and applying',
    gives: 'application/pdf',
  },
  'GET /api/orders/{id}/fitting-map': {
    params: byId,
    query: datumSchema,
    says: 'Where the panels of an order go, measured from a datum',
    gives: mapPageSchema,
  },
  'GET /api/orders/{id}/fitting-map.pdf': {
    params: byId,
    query: datumSchema,
    says: 'The fitting map on paper',
    gives: 'application/pdf',
  },
  'GET /api/orders/{id}/strips/{strip}.plt': {
    params: byStrip,
    says: 'One strip as HP-GL',
    gives: 'application/octet-stream',
  },
  'GET /api/orders/{id}/strips/{strip}.svg': {
    params: byStrip,
    says: 'One strip as SVG',
    gives: 'image/svg+xml',
  },
  'GET /api/orders/{id}/sheets/{sheet}': {
    params: bySheet,
    query: sheetQuery,
    says: 'A printed sheet: what is printed as PDF or PNG, what is cut as SVG, DXF or HP-GL',
    gives: 'application/octet-stream',
  },
  'POST /api/orders/{id}/sheets/{sheet}/print': {
    params: bySheet,
    says: "Send a sheet to the shop's printer",
    gives: z.object({ name: z.string() }),
  },
  'POST /api/orders/{id}/queue': {
    params: byId,
    says: 'Queue a cut for each strip',
    takes: queueSchema,
    gives: z.array(cutSchema),
  },
  'POST /api/orders/{id}/put-away': { params: byId, says: 'Put an order out of sight', gives: nothing },
  'POST /api/orders/{id}/bring-back': { params: byId, says: 'Bring it back', gives: nothing },
  'POST /api/orders/{id}/clear': {
    params: byId,
    says: 'Take an order that was put away, and was never cut, out for good',
    gives: nothing,
  },
  'GET /api/cuts': {
    query: z.object({ order: id.optional() }),
    says: 'Cuts: open ones, or those of one order',
    gives: z.array(cutSchema),
  },
  'GET /api/cutters': {
    query: cutterQuerySchema,
    says: 'What each cutter, or only one, answers, and the film in it',
    gives: z.array(cutterStateSchema),
  },
  'GET /api/cuts/{id}': { params: byId, says: 'One cut', gives: cutSchema },
  'GET /api/cuts/{id}/acts': {
    params: byId,
    says: 'What people did with a cut, in order',
    gives: z.array(cutActSchema),
  },
  'GET /api/cuts/{id}/drawing': { params: byId, says: 'What is drawn of a cut', gives: drawingSchema },
  'GET /api/cuts/{id}/record': { params: byId, says: 'What the knife left', gives: recordSchema },
  'POST /api/cuts/by-code': {
    says: 'Bring up the cut of the sheet whose code was read',
    takes: sheetCodeSchema,
    gives: cutSchema,
  },
  'POST /api/cuts/{id}/loaded': { params: byId, says: 'The film is loaded', gives: cutSchema },
  'POST /api/cuts/{id}/jog': {
    params: byId,
    says: 'Move the head over a sheet that is loaded, to take its marks by hand',
    takes: jogSchema,
    gives: headAtSchema,
  },
  'POST /api/cuts/{id}/taken': {
    params: byId,
    says: 'The sheet is loaded, and its marks were taken by hand',
    takes: takenSchema,
    gives: cutSchema,
  },
  'POST /api/cuts/{id}/stop': { params: byId, says: 'Stop after the line being cut', gives: cutSchema },
  'POST /api/cuts/{id}/resume': {
    params: byId,
    says: 'Go on after a stop',
    takes: resumeSchema,
    gives: cutSchema,
  },
  'GET /api/floor': { says: 'Whether all machines are paused, and what is in each', gives: floorSchema },
  'GET /api/floor/fewest-swaps': {
    says: 'Orders of the lanes with fewer changes of film and knife, and nothing late for it',
    gives: fewestSchema,
  },
  'POST /api/floor/pause': { says: 'Stop all machines', gives: floorSchema },
  'POST /api/floor/go-on': { says: 'Go on with all that was paused', gives: floorSchema },
  'POST /api/cutters/{cutter}/lane': {
    params: byCutter,
    says: 'Put the cuts that wait at a cutter into another order',
    takes: laneOrderSchema,
    gives: z.array(cutSchema),
  },
  'POST /api/cuts/{id}/hold': { params: byId, says: 'Put a cut that waits onto the shelf', gives: cutSchema },
  'POST /api/cuts/{id}/release': {
    params: byId,
    says: 'Send a cut from the shelf to its cutter',
    gives: cutSchema,
  },
  'POST /api/cuts/{id}/move': {
    params: byId,
    says: 'Put a cut that waits elsewhere in its lane, or have it cut on another cutter',
    takes: moveSchema,
    gives: cutSchema,
  },
  'POST /api/cuts/{id}/how': {
    params: byId,
    says: 'Say how a cut that is done came out',
    takes: howItWasSchema,
    gives: saidSchema,
  },
  'POST /api/cuts/{id}/cancel': { params: byId, says: 'Take a cut out of the queue', gives: cutSchema },
} satisfies Readonly<Record<`${Method} /api/${string}`, Endpoint>>;

export type Route = keyof typeof ENDPOINTS;
type Of<R extends Route> = (typeof ENDPOINTS)[R];

type Sent<R extends Route, From extends string, To extends string> =
  Of<R> extends { readonly [K in From]: infer S extends z.ZodType }
    ? object extends z.input<S>
      ? { readonly [K in To]?: z.input<S> }
      : { readonly [K in To]: z.input<S> }
    : unknown;
/** What is said with a call, by whoever calls. */
export type Ask<R extends Route> = Sent<R, 'params', 'params'> &
  Sent<R, 'query', 'query'> &
  Sent<R, 'takes', 'body'>;

type Heard<R extends Route, From extends string> =
  Of<R> extends { readonly [K in From]: infer S extends z.ZodType } ? z.output<S> : undefined;
/** The same as the server has it, parsed. */
export interface Asked<R extends Route> {
  readonly params: Heard<R, 'params'>;
  readonly query: Heard<R, 'query'>;
  readonly body: Of<R> extends { readonly upload: true }
    ? { readonly name: string; readonly bytes: Buffer }
    : Heard<R, 'takes'>;
}

/** What a call gives; undefined where it gives no JSON. */
export type Given<R extends Route> = Of<R>['gives'] extends infer S extends z.ZodType
  ? z.output<S>
  : undefined;
