/** A page for tests of stores and composables: what is set up in it lives as in a component, and a server that a test plays. */
import { mount } from '@vue/test-utils';
import { createPinia } from 'pinia';
import { defineComponent } from 'vue';
import type { ShopEvent } from '../contracts/api';

/** What was asked of the server. */
export interface Asked {
  readonly method: string;
  /** With its query. */
  readonly path: string;
  readonly body: unknown;
}

/** What the server says: JSON, or a problem with its status. */
export type Answer = (asked: Asked) => unknown;

export class Refused {
  constructor(
    readonly status: number,
    readonly problem: { readonly code: string; readonly message: string },
  ) {}
}

/** The line by which a page hears what happens. */
class FakeLine {
  static lines: FakeLine[] = [];
  static readonly CLOSED = 2;
  readyState = 1;
  onopen?: () => void;
  onerror?: () => void;
  private listener?: (event: { data: string }) => void;
  constructor(readonly url: string) {
    FakeLine.lines.push(this);
  }
  addEventListener(_kind: string, listener: (event: { data: string }) => void): void {
    this.listener = listener;
  }
  tell(event: ShopEvent): void {
    this.listener?.({ data: JSON.stringify(event) });
  }
  close(): void {
    FakeLine.lines = FakeLine.lines.filter((one) => one !== this);
  }
}

/** Uploads are answered by the test too: the file's name is what is asked with. */
function uploadsTo(answer: (asked: Asked) => Promise<unknown>): typeof XMLHttpRequest {
  class FakeUpload {
    readonly upload = {};
    status = 0;
    responseText = '';
    onload?: () => void;
    onabort?: () => void;
    onerror?: () => void;
    private path = '';
    private isGivenUp = false;
    open(_method: string, path: string): void {
      this.path = path;
    }
    setRequestHeader(): void {}
    abort(): void {
      this.isGivenUp = true;
      this.onabort?.();
    }
    send(form: FormData): void {
      const body = (form.get('file') as File).name;
      void answer({ method: 'POST', path: this.path, body }).then(
        (value) => this.end(200, JSON.stringify({ value })),
        (error: unknown) =>
          error instanceof Refused ? this.end(error.status, JSON.stringify(error.problem)) : this.onerror?.(),
      );
    }
    private end(status: number, text: string): void {
      if (this.isGivenUp) return;
      [this.status, this.responseText] = [status, text];
      this.onload?.();
    }
  }
  return FakeUpload as unknown as typeof XMLHttpRequest;
}

/**
 * Sets something up in a page.
 * @param setUp as in a component
 * @param answer what the server says to each question; thrown `Refused` is a refusal, anything else thrown is a server that is away
 */
export function inPage<T>(setUp: () => T, answer: Answer) {
  const asked: Asked[] = [];
  FakeLine.lines = [];
  globalThis.fetch = async (path, how) => {
    const one: Asked = {
      method: how?.method ?? 'GET',
      path: String(path as string),
      body: how?.body === undefined ? undefined : (JSON.parse(how.body as string) as unknown),
    };
    asked.push(one);
    try {
      const said = await answer(one);
      return { ok: true, status: 200, json: () => Promise.resolve(said) } as Response;
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      return {
        ok: false,
        status: error.status,
        text: () => Promise.resolve(JSON.stringify(error.problem)),
      } as Response;
    }
  };
  globalThis.EventSource = FakeLine as unknown as typeof EventSource;
  globalThis.XMLHttpRequest = uploadsTo(async (one) => {
    asked.push(one);
    return answer(one);
  });
  let made: T;
  const page = mount(
    defineComponent({
      setup: () => {
        made = setUp();
        return () => null;
      },
    }),
    { global: { plugins: [createPinia()] } },
  );
  return {
    it: made!,
    /** All that was asked so far, as “METHOD path”. */
    asked: (): string[] => asked.map(({ method, path }) => `${method} ${path}`),
    bodies: (): unknown[] => asked.map(({ body }) => body),
    /** Something happens in the shop. */
    tell: (event: ShopEvent): void => FakeLine.lines.forEach((line) => line.tell(event)),
    /** The line to the server was gone, and is there again. */
    comeBack: (): void => FakeLine.lines.forEach((line) => line.onopen?.()),
    leave: (): void => page.unmount(),
  };
}

/** All that is on its way has come. */
export async function settled(): Promise<void> {
  for (let i = 0; i < 20; i++) await new Promise((done) => setImmediate(done));
}
