/** Calibrations, and the knives that make them. */
import { z } from 'zod';
import {
  calibrationSchema,
  knifeSchema,
  measuringSchema,
  putInSchema,
  setupSchema,
  paceSchema,
} from '../calibrations';
import { shopSchema } from '../shop';
import type { Endpoints } from './endpoint';
import { byCutter, byId } from './params';

export const calibrationsEndpoints = {
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
} satisfies Endpoints;
