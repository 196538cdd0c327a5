import {
  calibrationSheet,
  cutCalibration,
  dropCalibration,
  keepCalibration,
  listCalibrations,
  measureCalibration,
  printCalibration,
  setUpCalibration,
  stopCalibration,
} from '../services/calibrations';
import { paceAt } from '../services/pace';
import { listKnives, putIn, raiseOthers, throwKnife } from '../services/knives';
import type { Handlers } from './mount';
import { paper } from './sent';

/** What is found out about machines by test cuts, and the knives that make them. */
export const calibrationRoutes = {
  'GET /api/cutters/{cutter}/calibrations': ({ params, services }) =>
    listCalibrations(services.db, params.cutter),
  'POST /api/cutters/{cutter}/calibrations': ({ params, body, services }) =>
    setUpCalibration(services, params.cutter, body),
  'PATCH /api/calibrations/{id}': ({ params, body, services }) =>
    measureCalibration(services, params.id, body),
  'POST /api/calibrations/{id}/cut': ({ params, services }) => cutCalibration(services, params.id),
  'POST /api/calibrations/{id}/stop': ({ params, services }) => stopCalibration(services, params.id),
  'POST /api/calibrations/{id}/keep': ({ params, services }) => keepCalibration(services, params.id),
  'POST /api/calibrations/{id}/drop': ({ params, services }) => dropCalibration(services, params.id),
  'GET /api/cutters/{cutter}/pace': ({ params, services }) => paceAt(services.db, params.cutter),
  'GET /api/knives': ({ services }) => listKnives(services.db),
  'POST /api/cutters/{cutter}/knife': ({ params, body, services }) => putIn(services, params.cutter, body),
  'POST /api/knives/{id}/throw': ({ params, services }) => throwKnife(services, params.id),
  'POST /api/calibrations/{id}/raise': ({ params, services }) => raiseOthers(services, params.id),
  'GET /api/calibrations/{id}/sheet.pdf': async ({ params, services }) => {
    const { name, bytes } = await calibrationSheet(services.db, params.id);
    return paper(bytes, `${name}.pdf`);
  },
  'POST /api/calibrations/{id}/print': ({ params, services }) => printCalibration(services, params.id),
} satisfies Partial<Handlers>;
