/** The one way to the server: typed by its OpenAPI document, with the CSRF token, refusals as ApiProblem. */
import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

/** A refusal by the server: which field, and one sentence for people. */
export class ApiProblem extends Error {
  readonly status: number;
  readonly field: string;
  readonly code: string;
  /** What would make it acceptable: none, reason, lead and reason. */
  readonly wayOut: string;
  /** Which letters of a typed line cannot be read. */
  readonly at: components['schemas']['Span'] | null;

  constructor(
    status: number,
    sentence: string,
    said: Partial<Pick<ApiProblem, 'field' | 'code' | 'wayOut' | 'at'>> = {},
  ) {
    super(sentence);
    this.status = status;
    this.field = said.field ?? '';
    this.code = said.code ?? '';
    this.wayOut = said.wayOut ?? 'none';
    this.at = said.at ?? null;
  }
}

/** What went wrong, in one sentence: the refusal's own, or that nobody answers. */
export function sentenceOf(error: unknown): string {
  return error instanceof ApiProblem ? error.message : 'The server does not answer; try again.';
}

/** The server did not answer: what was sent may or may not have arrived. */
export class NoAnswer extends Error {}

const WAIT_MS = 15_000;
const JSON_TYPE = 'application/json';

function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? '';
}

/** The last answers that came with a tag, in this page's memory alone: the browser keeps nothing of a shop on its disk. */
const tagged = new Map<string, { tag: string; text: string }>();
const TAGGED = 24;

/** The answer itself, or the one that is known when the server says that it still holds. */
async function known(request: Request, answer: Response): Promise<Response> {
  const before = tagged.get(request.url);
  if (answer.status === 304 && before) return new Response(before.text, { headers: { 'Content-Type': JSON_TYPE } });
  const tag = answer.headers.get('ETag');
  if (!tag || !answer.ok) return answer;
  tagged.delete(request.url);
  tagged.set(request.url, { tag, text: await answer.clone().text() });
  for (const oldest of [...tagged.keys()].slice(0, -TAGGED)) tagged.delete(oldest);
  return answer;
}

/** Shows a question for the password and says whether it was given and taken; put here by the screen that asks. */
let askPassword: (() => Promise<boolean>) | null = null;
export function passwordAskedBy(ask: typeof askPassword): void {
  askPassword = ask;
}

async function wantsPassword(answer: Response): Promise<boolean> {
  return answer.status === 403 && (await saysCode(answer, 'password'));
}

async function saysCode(answer: Response, code: string): Promise<boolean> {
  const said: unknown = await answer
    .clone()
    .json()
    .catch(() => null);
  return hasText(said, 'code') && said.code === code;
}

const BUSY_AGAIN_MS = 1_000;
const BUSY_TIMES = 20;
const SIGN_IN = '/api/session';

/** Whether others are ahead of what takes long: the server lets few wait, so whoever asks comes again by himself. */
async function comesAgain(request: Request, answer: Response): Promise<boolean> {
  return answer.status === 429 && new URL(request.url).pathname !== SIGN_IN && (await saysCode(answer, 'busy'));
}

async function sendInTurn(request: Request): Promise<Response> {
  for (let tries = 1; ; tries += 1) {
    const answer = await sendOnce(request.clone());
    if (tries >= BUSY_TIMES || !(await comesAgain(request, answer))) return answer;
    await new Promise((later) => setTimeout(later, BUSY_AGAIN_MS));
    if (request.signal.aborted) return answer;
  }
}

/** What asks for the password once more is sent again when it was given. */
async function send(request: Request): Promise<Response> {
  if (request.method === 'GET') return sendInTurn(request);
  const again = request.clone();
  const answer = await sendInTurn(request);
  const given = askPassword && (await wantsPassword(answer)) && (await askPassword());
  return given ? sendOnce(again) : answer;
}

async function sendOnce(request: Request): Promise<Response> {
  request.headers.set('X-CSRFToken', csrfToken());
  // whoever names a tag has the answer himself
  const isKept = request.method === 'GET' && !request.headers.has('If-None-Match');
  const before = isKept && tagged.get(request.url);
  if (before) request.headers.set('If-None-Match', before.tag);
  try {
    const signal = AbortSignal.any([request.signal, AbortSignal.timeout(WAIT_MS)]);
    // a liking is sent to its end even if the page is left at once
    const keepalive = request.method === 'PUT';
    const answer = await fetch(request, { signal, cache: 'no-store', keepalive });
    return isKept ? await known(request, answer) : answer;
  } catch (error) {
    if (request.signal.aborted) throw error;
    throw new NoAnswer('The server does not answer.');
  }
}

export const client = createClient<paths>({ baseUrl: '/', fetch: send });

function hasText(value: unknown, key: string): value is Record<string, string> {
  return typeof value === 'object' && value !== null && key in value;
}

function spanIn(error: unknown): ApiProblem['at'] {
  const at: unknown = typeof error === 'object' && error !== null && 'at' in error ? error.at : null;
  if (typeof at !== 'object' || at === null || !('begin' in at && 'end' in at)) return null;
  return { begin: Number(at.begin), end: Number(at.end) };
}

/** Unwraps an answer: its data, or the refusal thrown. */
export function unwrap<T>(answer: { data?: T; error?: unknown; response: Response }): T {
  const { data, error, response } = answer;
  if (response.ok && data !== undefined) return data;
  const said = (key: string) => (hasText(error, key) ? error[key] : undefined) ?? '';
  // a door in front of the server, or nobody: only what Gurvo itself says has a code
  if (response.status >= 502 && !said('code')) throw new NoAnswer('The server does not answer.');
  const sentence = said('sentence') || `The server refused this (${response.status}).`;
  const wayOut = said('way_out') || 'none';
  throw new ApiProblem(response.status, sentence, {
    field: said('field'),
    code: said('code'),
    wayOut,
    at: spanIn(error),
  });
}

/** What was typed, as a query: what was left empty is not asked, a comma is a point. */
export function typedQuery(typed: Record<string, string>): Record<string, string> {
  const said = Object.entries(typed).filter(([, value]) => value.trim() !== '');
  return Object.fromEntries(said.map(([key, value]) => [key, value.trim().replace(',', '.')]));
}
