/** Who may do what: every route is asked before anything of a request is looked at. */
import type { NextFunction, Request, Response } from 'express';
import type { Role } from '../../contracts/people';
import { mayDo } from '../../contracts/people';
import type { Route } from '../../contracts/endpoints';
import type { Needs } from '../../contracts/rights';
import { needsOf } from '../../contracts/rights';
import type { Db } from '../db/connect';
import type { Asking } from '../people/logIn';
import { askingOf } from '../people/logIn';
import { stayLoggedIn } from '../people/session';
import { Trouble } from '../problem';

/** Finds out who asks. */
export const whoAsks =
  (db: Db) =>
  (request: Request, response: Response, next: NextFunction): void => {
    askingOf(db, request)
      .then((asking) => {
        stayLoggedIn(request);
        response.locals.asking = asking;
        next();
      })
      .catch(next);
  };

export const asking = (response: Response): Asking => response.locals.asking as Asking;

/** @throws Trouble 401 or 403 when whoever asks may not take this route */
export function refuseRoute(route: Route, { me, tablet }: Asking): void {
  const needs = needsOf(route);
  refuseUnless(needs, { me, tablet });
  const isOpen =
    needs === 'anyone' || needs === 'tablet' || route.startsWith('GET ') || route === 'PATCH /api/me';
  if (isOpen || tablet !== undefined || !me?.mustChange) return;
  throw new Trouble(403, 'must-change', 'Choose a password of your own first: this one was made for you.', [
    'Press your name at the top, then “Your password and PIN”',
  ]);
}

/** @throws Trouble 401 or 403 when whoever asks may not */
export function refuseUnless(needs: Needs, { me, tablet }: Asking): void {
  if (needs === 'anyone') return;
  if (!me && tablet === undefined) throw new Trouble(401, 'log-in', 'Log in first.');
  if (needs === 'tablet') return;
  if (!me) throw new Trouble(401, 'pin-wanted', 'Say by your PIN that it is you.');
  if (mayDo(me.role, needs)) return;
  throw new Trouble(403, 'not-yours', WHO[needs], ['Ask somebody who may', 'Log in as somebody who may']);
}

const WHO: Readonly<Record<Role, string>> = {
  prep: 'This is for the people of the shop.',
  operator: 'Machines are run by operators and leads.',
  lead: 'Recipes, cutters, stock and people are changed by a lead.',
};
