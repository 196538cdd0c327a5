/** Tern Lane Signs, the made-up shop: what it stocks and cuts with. Forces and speeds are common practice, no source. */
import type { Film } from '../core/films/film';
import type { Cutter, Recipe } from '../core/layout/cutter';
import { USUAL_RESERVE } from '../core/layout/cutter';
import type { Shop } from '../core/plan/shop';
import { USUAL_PRINTER } from '../core/print/choices';

const sign = (
  id: string,
  name: string,
  code: string,
  colour: string,
  width = 610,
  lengthLeft = 22_000,
): Film => ({
  id,
  name,
  code,
  colour,
  rolls: [{ width, lengthLeft }],
  cutFromBack: false,
  kind: 'sign',
});

const garment = (id: string, name: string, code: string, colour: string): Film => ({
  ...sign(id, name, code, colour, 500, 9_000),
  cutFromBack: true,
  kind: 'garment',
});

export const DEMO_FILMS: readonly Film[] = [
  {
    ...sign('damson', 'Damson', 'G-4107', '#4a1d44'),
    rolls: [
      { width: 610, lengthLeft: 22_000 },
      { width: 610, lengthLeft: 1210, sheets: 1, offcut: 'D-17' },
      { width: 610, lengthLeft: 640, sheets: 1, offcut: 'D-21' },
    ],
  },
  sign('tide-blue', 'Tide blue', 'G-4230', '#2c6e7c'),
  sign('quince', 'Quince', 'G-4015', '#e2a11d'),
  {
    ...sign('chalk', 'Chalk white', 'G-4001', '#fbfbf8'),
    rolls: [
      { width: 1220, lengthLeft: 31_000 },
      { width: 610, lengthLeft: 6_400 },
    ],
  },
  {
    ...sign('tar', 'Tar black', 'G-4002', '#17161a'),
    rolls: [
      { width: 1220, lengthLeft: 28_500 },
      { width: 610, lengthLeft: 11_000 },
    ],
  },
  { ...sign('slate', 'Slate', 'G-4060', '#53606b'), finish: 'matt' },
  { ...sign('gull', 'Gull grey', 'G-4062', '#a9b0b4'), finish: 'satin' },
  sign('currant', 'Currant red', 'G-4310', '#b0202f'),
  sign('coral', 'Coral', 'G-4318', '#e0604c'),
  sign('lantern', 'Lantern orange', 'G-4325', '#ee7a1c'),
  sign('buoy', 'Buoy yellow', 'G-4020', '#f5cf1b'),
  sign('samphire', 'Samphire', 'G-4410', '#5b8a3a'),
  sign('eelgrass', 'Eelgrass', 'G-4415', '#1f5a3c'),
  sign('harbour', 'Harbour blue', 'G-4240', '#1d3f86'),
  sign('shallow', 'Shallow water', 'G-4235', '#58a7d6'),
  sign('heather', 'Heather', 'G-4110', '#8d5a9b'),
  {
    ...sign('thrift', 'Thrift pink', 'G-4120', '#e58cab'),
    rolls: [
      { width: 610, lengthLeft: 22_000 },
      { width: 300, lengthLeft: 4_500 },
    ],
  },
  sign('sand', 'Sand', 'G-4030', '#dcc69a'),
  sign('rope', 'Rope', 'G-4035', '#a37a45'),
  sign('bark', 'Bark', 'G-4038', '#5a3a24', 610, 1_400),
  sign('kelp', 'Kelp', 'G-4420', '#6b6a2f'),
  sign('mussel', 'Mussel', 'G-4245', '#2b2f52'),
  sign('oyster', 'Oyster', 'G-4034', '#cfc7bb'),
  sign('brick', 'Brick', 'G-4305', '#8c3b2a'),
  sign('foam', 'Sea foam', 'G-4236', '#a9d8cf'),
  sign('lime', 'Lime', 'G-4405', '#b5cc2e'),
  sign('plum', 'Plum', 'G-4112', '#6c2f6e'),
  { ...sign('brass', 'Brass', 'M-6010', '#b08d43', 610, 9_000), build: 'metallic' },
  { ...sign('tin', 'Tin', 'M-6001', '#b9bdc1', 610, 7_500), build: 'metallic' },
  { ...sign('copper', 'Copper', 'M-6020', '#b06a45', 610, 5_200), build: 'metallic' },
  { ...sign('amber-clear', 'Clear amber', 'C-7015', '#f0a52a', 610, 12_000), build: 'translucent' },
  { ...sign('blue-clear', 'Clear blue', 'C-7040', '#2f6fd0', 610, 12_000), build: 'translucent' },
  { ...sign('red-clear', 'Clear red', 'C-7030', '#d8202c', 610, 12_000), build: 'translucent' },
  { ...sign('frost', 'Frost', 'C-7001', '#e8eef0', 1220, 18_000), build: 'translucent' },
  {
    ...sign('dial-card', 'Dial card', 'K-1020', '#ead9b4'),
    rolls: [{ width: 580, lengthLeft: 880, sheets: 25 }],
    finish: 'matt',
    limits: { narrowest: 1, gap: 1 },
    thickness: 0.6,
  },
  {
    ...sign('print-white', 'Print white', 'P-8001', '#fcfcfa'),
    rolls: [
      { width: 297, lengthLeft: 420, sheets: 60 },
      { width: 210, lengthLeft: 297, sheets: 100 },
      { width: 610, lengthLeft: 18_000 },
    ],
    print: 'white',
  },
  {
    ...sign('print-clear', 'Print clear', 'P-8050', '#eef2f3'),
    rolls: [{ width: 297, lengthLeft: 420, sheets: 40 }],
    build: 'translucent',
    thickness: 0.15,
    print: 'clear',
  },
  {
    ...sign('print-slate', 'Print slate', 'P-8060', '#3b424a'),
    rolls: [{ width: 297, lengthLeft: 420, sheets: 20 }],
    finish: 'matt',
    print: 'dark',
  },
  garment('flock-black', 'Black flock', 'T-2002', '#1a191c'),
  garment('flock-red', 'Red flock', 'T-2310', '#b4202e'),
  garment('flock-gold', 'Gold flock', 'T-2020', '#d9a429'),
  garment('flock-coral', 'Coral flock', 'T-2318', '#e0604c'),
  garment('flock-white', 'White flock', 'T-2001', '#f7f6f2'),
  garment('flock-navy', 'Navy flock', 'T-2240', '#1b2a4d'),
];

const step = 0.025;

export const CURLEW: Cutter = {
  id: 'curlew',
  name: 'Curlew',
  kind: 'roll',
  widest: 1370,
  narrowest: 300,
  thickest: 0.8,
  margins: { far: 12.7, near: 12.7, lead: 8, tail: 5 },
  trackLength: 6000,
  reserve: USUAL_RESERVE,
  force: { least: 5, most: 600 },
  speed: { least: 5, most: 100 },
  ownSpeed: 30,
  motion: { acceleration: 8000, travelSpeed: 60, cornerTolerance: 0.03, down: 0.04, up: 0.04 },
  sensor: {
    kinds: ['in', 'out', 'dots'],
    most: 24,
    farthest: 3000,
    noise: 0.02,
    reach: 12,
    offset: [10, 0.8],
  },
  device: {
    step,
    feedAxis: 'x',
    feedReversed: false,
    acrossReversed: false,
    sendsForce: true,
    sendsSpeed: true,
    pointsInDown: 50,
    bufferBytes: 4096,
  },
};

/** An older one: force is a knob at its front, and it takes one point at a time. */
export const HERON: Cutter = {
  id: 'heron',
  name: 'Heron',
  kind: 'roll',
  widest: 640,
  narrowest: 200,
  thickest: 0.5,
  margins: { far: 12.7, near: 9, lead: 10, tail: 8 },
  trackLength: 3000,
  reserve: USUAL_RESERVE,
  force: { least: 20, most: 300 },
  speed: { least: 5, most: 60 },
  ownSpeed: 25,
  motion: { acceleration: 4000, travelSpeed: 40, cornerTolerance: 0.03, down: 0.04, up: 0.04 },
  device: {
    step,
    feedAxis: 'y',
    feedReversed: false,
    acrossReversed: true,
    sendsForce: false,
    sendsSpeed: true,
    pointsInDown: 1,
    bufferBytes: 1024,
  },
};

export const PLOVER: Cutter = {
  id: 'plover',
  name: 'Plover',
  kind: 'desk',
  widest: 320,
  narrowest: 100,
  thickest: 0.5,
  margins: { far: 8, near: 8, lead: 6, tail: 5 },
  trackLength: 1500,
  reserve: USUAL_RESERVE,
  force: { least: 5, most: 210, steps: 42 },
  speed: { least: 1, most: 40 },
  ownSpeed: 15,
  motion: { acceleration: 2500, travelSpeed: 30, cornerTolerance: 0.03, down: 0.04, up: 0.04 },
  sensor: { kinds: ['in', 'dots'], most: 12, farthest: 1200, noise: 0.03, reach: 8, offset: [-8, 0.6] },
  device: {
    step: 0.05,
    feedAxis: 'x',
    feedReversed: true,
    acrossReversed: false,
    sendsForce: true,
    sendsSpeed: true,
    pointsInDown: 20,
    bufferBytes: 512,
  },
};

/** A flatbed: the sheet lies still; the second holder has a creasing wheel. */
export const SALTPAN: Cutter = {
  id: 'saltpan',
  name: 'Saltpan',
  kind: 'flatbed',
  widest: 600,
  narrowest: 100,
  thickest: 6,
  margins: { far: 5, near: 5, lead: 8, tail: 5 },
  trackLength: 900,
  reserve: USUAL_RESERVE,
  force: { least: 10, most: 1000 },
  speed: { least: 1, most: 60 },
  ownSpeed: 20,
  motion: { acceleration: 6000, travelSpeed: 50, cornerTolerance: 0.03, down: 0.04, up: 0.04 },
  sensor: {
    kinds: ['in', 'out', 'dots'],
    most: 16,
    farthest: 1000,
    noise: 0.015,
    reach: 12,
    offset: [0.5, -12],
  },
  device: {
    step: 0.01,
    feedAxis: 'y',
    feedReversed: true,
    acrossReversed: true,
    sendsForce: true,
    sendsSpeed: true,
    pointsInDown: 50,
    bufferBytes: 8192,
    tools: 2,
  },
};

const blade45 = { blade: '45°', bladeOffset: 0.25, overcut: 0.6 };
// thick film is torn in tight curves rather than cut
const flock = { force: 130, speed: 25, blade: '60°', bladeOffset: 0.5, overcut: 1, slowRadius: 3 };
const wheel = { blade: 'creasing wheel', bladeOffset: 0, overcut: 0 };

export const DEMO_RECIPES: Readonly<Record<string, Recipe>> = {
  'curlew/*': { force: 80, speed: 40, ...blade45 },
  'curlew/chalk': { force: 75, speed: 40, ...blade45 },
  'curlew/tar': { force: 90, speed: 40, ...blade45 },
  'curlew/flock-coral': flock,
  'curlew/flock-white': flock,
  'curlew/flock-navy': flock,
  'heron/*': { force: 85, speed: 30, ...blade45 },
  'plover/*': { force: 75, speed: 20, ...blade45, bladeOffset: 0.3 },
  'saltpan/*': { force: 75, speed: 30, ...blade45 },
  'saltpan/dial-card': { force: 190, speed: 20, ...blade45 },
  'saltpan/dial-card/crease': { force: 350, speed: 15, ...wheel },
};

export const DEMO_SHOP: Shop = {
  films: DEMO_FILMS,
  cutters: [CURLEW, HERON, PLOVER, SALTPAN],
  recipes: DEMO_RECIPES,
  printer: USUAL_PRINTER,
};
