/** Cuts, and the floor. */
import { z } from 'zod';
import {
  againSchema,
  cutActSchema,
  cutSchema,
  drawingSchema,
  howItWasSchema,
  nudgeSchema,
  nudgesKeptSchema,
  saidSchema,
  sheetCodeSchema,
  recordSchema,
  resumeSchema,
  newFilmSchema,
  slippedSchema,
} from '../cuts';
import {
  fewestSchema,
  floorSchema,
  joinSchema,
  joinsSchema,
  laneOrderSchema,
  moveSchema,
  toJoinSchema,
} from '../floor';
import { headAtSchema, jogSchema, takenSchema } from '../print';
import type { Endpoints } from './endpoint';
import { byCutter, byId, id } from './params';

export const cutsEndpoints = {
  'GET /api/cuts': {
    query: z.object({ order: id.optional(), lastAt: z.string().max(60).optional() }),
    says: 'Cuts: open ones, those of one order, or those of the order that was cut last at a cutter',
    gives: z.array(cutSchema),
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
    says: 'Move the head over a sheet that is loaded, or over what a stopped cut has cut',
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
  'GET /api/floor/joins': {
    says: 'Cuts that wait and can be joined on one strip, each film planned as it would be',
    gives: joinsSchema,
  },
  'POST /api/floor/joins/try': {
    says: 'What cuts come to on one strip',
    takes: toJoinSchema,
    gives: joinSchema,
  },
  'POST /api/floor/joins': {
    says: 'Join cuts that wait on one strip',
    takes: toJoinSchema,
    gives: z.array(cutSchema),
  },
  'POST /api/cuts/{id}/part': {
    params: byId,
    says: 'Take a strip of several orders that waits apart: each is cut by itself',
    gives: z.array(cutSchema),
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
  'POST /api/cuts/{id}/nudge': {
    params: byId,
    says: 'Cut with another force or speed from the next line on',
    takes: nudgeSchema,
    gives: cutSchema,
  },
  'POST /api/cuts/{id}/nudges-kept': {
    params: byId,
    says: 'Take what was nudged in a cut that is done into its recipes, or leave them',
    takes: nudgesKeptSchema,
    gives: cutSchema,
  },
  'POST /api/cuts/{id}/new-film': {
    params: byId,
    says: 'Go on with a stopped cut whose film ended: what is left from a line on lies at the start of new film',
    takes: newFilmSchema,
    gives: cutSchema,
  },
  'POST /api/cuts/{id}/slipped': {
    params: byId,
    says: 'Go on with a stopped cut where its film slipped to, by two places of what was cut',
    takes: slippedSchema,
    gives: cutSchema,
  },
  'POST /api/cuts/{id}/again': {
    params: byId,
    says: 'Cut what is spoilt again: all of a cut, or what lies at places on its strip',
    takes: againSchema,
    gives: z.array(cutSchema),
  },
  'POST /api/cuts/{id}/cancel': { params: byId, says: 'Take a cut out of the queue', gives: cutSchema },
} satisfies Endpoints;
