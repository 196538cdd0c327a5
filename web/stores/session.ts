/**
 * What is changed in one order, on its way to the server. A change shows at once and is kept in the browser until the
 * server has it; what others change meanwhile is laid under it. Goes on saving when another order has been opened.
 */
import type { Order } from '../../contracts/api';
import type { Clash, Edit } from '../../contracts/edits';
import { applyEdits, editsBetween, isSame } from '../../contracts/edits';
import type { Choices } from '../../core/plan/choices';
import type { call } from './api';
import { ApiProblem } from './api';

export type Saving = 'saved' | 'saving' | 'waiting';

/** Where changes lie until the server has them: neither a reload nor a lost server takes them away. */
export interface Kept {
  readonly read: () => readonly (readonly Edit[])[];
  readonly write: (pending: readonly (readonly Edit[])[]) => void;
}

/** What met somebody else's change. */
export type Met = 'change' | 'undo' | 'redo';
export type MetClash = Clash & { readonly met: Met };

/** What a session lives in. */
export interface Host {
  readonly call: typeof call;
  readonly kept: Kept;
  readonly wait: (ms: number) => Promise<void>;
  /** Something is not as it was: the order, its choices, or how far they are saved. */
  readonly tell: () => void;
  /** Somebody else has changed the same. */
  readonly clashed: (clashes: readonly Clash[], met: Met) => void;
  readonly failed: (problem: ApiProblem) => void;
}

export interface Session {
  /** As the server has it, and its choices as they are shown. */
  readonly order: () => Order;
  readonly choices: () => Choices;
  readonly saving: () => Saving;
  /** Changes whole sections; only what differs in them is sent. */
  readonly change: (change: Partial<Choices>) => void;
  readonly edit: (edits: readonly Edit[]) => void;
  readonly step: (word: 'undo' | 'redo') => Promise<void>;
  /** Its name and when it is due: kept beside the choices, without undo. */
  readonly describe: (details: Partial<Pick<Order, 'name' | 'due'>>) => Promise<void>;
  /** Looks what the server has by now. */
  readonly reload: () => Promise<void>;
}

const RETRY_MS = 2000;

/** It may well be taken a little later: the server or its database is away, has too much to do, does not know who asks, or waits for their own password. */
const isForNow = ({ status, code }: ApiProblem): boolean =>
  [0, 401, 429, 502, 503].includes(status) || code === 'must-change';

export function createSession(loaded: Order, host: Host): Session {
  const { id } = loaded;
  let saved = loaded;
  let pending: (readonly Edit[])[] = [...host.kept.read()];
  let shown = withPending();
  let saving: Saving = 'saved';
  let sending = false;
  /** Answers that the server has given to changes: what was asked for before one of them may be older. */
  let answers = 0;
  /** Somebody changed something while a change was on its way. */
  let isStale = false;
  let steps: Promise<void> = Promise.resolve();

  function withPending(): Choices {
    return pending.reduce<Choices>(
      (all, edits) => applyEdits(all, edits).value,
      saved.choices as unknown as Choices,
    );
  }

  function accept(order: Order): void {
    answers++;
    saved = order;
    const now = withPending();
    // the same choices stay the same: nothing is planned anew for them
    if (!isSame(now, shown)) shown = now;
    host.tell();
  }

  function setSaving(to: Saving): void {
    saving = to;
    host.tell();
  }

  function edit(edits: readonly Edit[]): void {
    if (edits.length === 0) return;
    pending.push(edits);
    host.kept.write(pending);
    shown = applyEdits(shown, edits).value;
    host.tell();
    void send();
  }

  async function send(): Promise<void> {
    if (sending) return;
    sending = true;
    try {
      while (pending.length > 0) await sendNext();
    } finally {
      sending = false;
    }
    if (isStale) await reload();
  }

  async function sendNext(): Promise<void> {
    const [edits] = pending;
    if (saving !== 'waiting') setSaving('saving');
    try {
      const body = { base: saved.revision, edits };
      const changed = await host.call('PATCH /api/orders/{id}/choices', { params: { id }, body });
      pending.shift();
      host.kept.write(pending);
      saving = pending.length > 0 ? 'saving' : 'saved';
      const { clashes, choices = applyEdits(saved.choices, edits).value, ...order } = changed;
      accept({ ...order, choices });
      if (clashes.length > 0) host.clashed(clashes, 'change');
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (!isForNow(error)) return refused(error);
      setSaving('waiting');
      host.kept.write(pending);
      await host.wait(RETRY_MS);
    }
  }

  /** The server will never take this one: it is dropped, and said so; what was changed after it is sent all the same. */
  function refused(problem: ApiProblem): void {
    const isGone = problem.status === 404;
    pending = isGone ? [] : pending.slice(1);
    host.kept.write(pending);
    shown = withPending();
    saving = pending.length > 0 ? 'saving' : 'saved';
    isStale = true;
    host.failed(problem);
  }

  async function reload(): Promise<void> {
    if (sending) return void (isStale = true);
    isStale = false;
    const before = answers;
    try {
      const order = await host.call('GET /api/orders/{id}', { params: { id } });
      // something was saved while this was on its way: it may be older than what is shown
      if (answers !== before || sending) return await reload();
      accept(order);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
    }
  }

  async function stepNow(word: 'undo' | 'redo'): Promise<void> {
    while (sending && saving !== 'waiting') await host.wait(20);
    if (pending.length > 0 || sending) return;
    sending = true;
    try {
      const { clashes, ...order } = await host.call(`POST /api/orders/{id}/${word}`, { params: { id } });
      accept(order);
      if (clashes.length > 0) host.clashed(clashes, word);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      host.failed(error);
    } finally {
      sending = false;
    }
    if (pending.length > 0) void send();
    else if (isStale) await reload();
  }

  async function describe(details: Partial<Pick<Order, 'name' | 'due'>>): Promise<void> {
    try {
      const { name, due } = await host.call('PATCH /api/orders/{id}', { params: { id }, body: details });
      // its choices may be older than what is shown by now
      saved = { ...saved, name, due };
      host.tell();
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      host.failed(error);
    }
  }

  if (pending.length > 0) void send();
  return {
    order: () => saved,
    choices: () => shown,
    saving: () => saving,
    change: (change) => edit(editsBetween(shown, { ...shown, ...change })),
    edit,
    // one step after the other, each once all before it is saved: however fast a hand is, none is lost
    step: (word) => (steps = steps.then(() => stepNow(word))),
    describe,
    reload,
  };
}
