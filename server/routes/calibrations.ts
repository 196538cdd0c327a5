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
import type { CutServices } from '../services/cuts';
import { paceAt } from '../services/pace';
import { listKnives, putIn, raiseOthers, throwKnife } from '../services/knives';
import type { Handlers } from './mount';
import { paper } from './sent';

/** What is found out about machines by test cuts, and the knives that make them. */
export const calibrationRoutes = (services: CutServices) =>
  ({
    'GET /api/cutters/{cutter}/calibrations': ({ params }) => listCalibrations(services.db, params.cutter),
    'POST /api/cutters/{cutter}/calibrations': ({ params, body }) =>
      setUpCalibration(services, params.cutter, body),
    'PATCH /api/calibrations/{id}': ({ params, body }) => measureCalibration(services, params.id, body),
    'POST /api/calibrations/{id}/cut': ({ params }) => cutCalibration(services, params.id),
    'POST /api/calibrations/{id}/stop': ({ params }) => stopCalibration(services, params.id),
    'POST /api/calibrations/{id}/keep': ({ params }) => keepCalibration(services, params.id),
    'POST /api/calibrations/{id}/drop': ({ params }) => dropCalibration(services, params.id),
    'GET /api/cutters/{cutter}/pace': ({ params }) => paceAt(services.db, params.cutter),
    'GET /api/knives': () => listKnives(services.db),
    'POST /api/cutters/{cutter}/knife': ({ params, body }) => putIn(services, params.cutter, body),
    'POST /api/knives/{id}/throw': ({ params }) => throwKnife(services, params.id),
    'POST /api/calibrations/{id}/raise': ({ params }) => raiseOthers(services, params.id),
    'GET /api/calibrations/{id}/sheet.pdf': async ({ params }) => {
      const { name, bytes } = await calibrationSheet(services.db, params.id);
      return paper(bytes, `${name}.pdf`);
    },
    'POST /api/calibrations/{id}/print': ({ params }) => printCalibration(services, params.id),
  }) satisfies Partial<Handlers>;
