import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { createHpglReader } from '../hpgl/readHpgl';
import type { Nudges } from './nudged';
import { nudger } from './nudged';

const WITH = { kiss: { force: 80, speed: 30 }, perforated: { force: 200, speed: 15 } };
const HEAD = 'IN;PA;SP1;VS30;FS80;';
const LINE = 'PU10,20;PD30,40;PU;';

/** What a plotter goes by with the pen down: force and speed of each stretch it draws, by the instructions themselves. */
function drawnWith(sent: readonly string[]): { force?: number; speed?: number }[] {
  const now: { force?: number; speed?: number } = {};
  const drawn: { force?: number; speed?: number }[] = [];
  for (const { code, values } of createHpglReader().push(sent.join(''))) {
    if (code === 'VS') now.speed = values[0];
    if (code === 'FS') now.force = values[0];
    if (code === 'PD') drawn.push({ ...now });
  }
  return drawn;
}

describe('a nudged cut', () => {
  test('says nothing anew while nothing was nudged', () => {
    const say = nudger(WITH);
    expect([say(HEAD, 'kiss', {}), say(LINE, 'kiss', {}), say(LINE, 'kiss', {})]).toEqual([HEAD, LINE, LINE]);
  });

  test('says force and speed before the next line, once', () => {
    const say = nudger(WITH);
    say(HEAD, 'kiss', {});
    const nudges: Nudges = { kiss: { force: 95, speed: 20 } };
    expect(say(LINE, 'kiss', nudges)).toBe(`VS20;FS95;${LINE}`);
    expect(say(LINE, 'kiss', nudges)).toBe(LINE);
    expect(say(LINE, 'kiss', {})).toBe(`VS30;FS80;${LINE}`);
  });

  test('each kind of line has its own', () => {
    const say = nudger(WITH);
    const kiss = `SP1;VS30;FS80;${LINE}`;
    const perforated = `SP1;VS15;FS200;${LINE}`;
    const nudges: Nudges = { perforated: { force: 240 } };
    expect(say(kiss, 'kiss', nudges)).toBe(kiss);
    expect(say(perforated, 'perforated', nudges)).toBe(`SP1;VS15;FS240;${LINE}`);
    expect(say(kiss, 'kiss', nudges)).toBe(kiss);
  });

  test('curves that are slower stay as much slower, and move on at all', () => {
    const say = nudger({ kiss: { force: 80, speed: 30 } });
    const curved = 'SP1;VS30;FS80;PU0,0;VS30;PD5,5;VS12;PD6,6;VS1;PD7,7;PU;';
    expect(say(curved, 'kiss', { kiss: { speed: 15 } })).toBe(
      'SP1;VS15;FS80;PU0,0;VS15;PD5,5;VS6;PD6,6;VS1;PD7,7;PU;',
    );
  });

  test('where the machine is told no force, none is told', () => {
    const say = nudger(WITH);
    say('IN;PA;SP1;VS30;', 'kiss', {});
    expect(say(LINE, 'kiss', { kiss: { force: 95 } })).toBe(LINE);
  });

  test('whenever it is nudged, and wherever a line is broken off, every stretch is drawn with what holds by then', () => {
    const nudge = fc.record({
      force: fc.integer({ min: 20, max: 400 }),
      speed: fc.integer({ min: 1, max: 60 }),
    });
    fc.assert(
      fc.property(
        fc.array(fc.record({ mixed: fc.constantFrom('kiss' as const, 'perforated' as const), nudge }), {
          minLength: 1,
          maxLength: 30,
        }),
        (lines) => {
          const say = nudger(WITH);
          const sent = [say(HEAD, 'kiss', {})];
          for (const { mixed, nudge: own } of lines) {
            const { force, speed } = WITH[mixed];
            const text = `SP1;VS${speed};FS${force};PU1,1;PD2,2;PD3,3;PU;`;
            const at = text.indexOf('PD3');
            sent.push(say(text.slice(0, at), mixed, { [mixed]: own }));
            sent.push(say(text.slice(at), mixed, { [mixed]: own }));
          }
          expect(drawnWith(sent)).toEqual(lines.flatMap(({ nudge: own }) => [own, own]));
        },
      ),
    );
  });
});
