import type { APIRoute } from 'astro';
import type { CommitResult, Proposed } from '../../../../formats/change.js';
import { ProposedSchema } from '../../../../formats/changeSchema.js';
import { validate } from '../../../../formats/validate.js';
import { jobs, live, store, storeFile } from '../../../../server/index.js';
import { answer, bodyBytes, fault, json, jsonOf, ROOM } from '../../../../server/http.js';

/** Changes after a revision, oldest first; or one change by its id. */
export const GET: APIRoute = ({ params, url }) =>
  answer(async () => {
    const plans = await store();
    const named = url.searchParams.get('id');
    if (named !== null) {
      const found = await plans.changeNamed(params.id!, named);
      return found ? json(found) : fault(404, 'no such change');
    }
    const since = Number(url.searchParams.get('since') ?? 0);
    if (!Number.isSafeInteger(since) || since < 0) return fault(422, 'must be a revision', 'since');
    return json(await plans.changesSince(params.id!, since));
  });

/** A change with a longer body than this is checked and saved by a helper, so that others need not wait. */
const LARGE = 64 * 1024;

async function save(id: string, body: Uint8Array, who: string): Promise<CommitResult | null> {
  const plans = await store();
  if (body.length > LARGE) {
    const { text } = await jobs().run('commit', { body, file: storeFile(), id, who });
    const result = JSON.parse(text!) as CommitResult | null;
    if (result?.status === 'saved') live.changed(id, result);
    return result;
  }
  return plans.commit(id, validate<Proposed>(ProposedSchema, jsonOf(body)), who);
}

/** Saves a change: 200 when saved or merged, 409 with the other changes when they touch. */
export const POST: APIRoute = ({ params, request, locals }) =>
  answer(async () => {
    const result = await save(
      params.id!,
      await bodyBytes(request, ROOM.change),
      locals.visitor.name,
    );
    if (!result) return fault(404, 'no such property');
    return json(result, result.status === 'saved' ? 200 : 409);
  });
