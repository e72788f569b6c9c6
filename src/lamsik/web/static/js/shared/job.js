// Work that the shop does beside its pages: begun with what is sent, asked after until it is done, stopped on demand.
// `said` is told its share and words, `done` its result, `failed` why there is none, with what the shop answered where the
// work itself failed; `value` is the job under way or done, or null.
import { again, get, post } from "./post.js";

export function work({ url, said, done, failed, every = 150 }) {
  let value = null, asking = null;

  async function begin(body) {
    stop();
    const answer = await post(url, body);
    if (!answer.ok) return failed(answer.message);
    value = answer.body.job;
    asking = again(() => ask(value), every);
    asking.begin();
  }

  async function ask(key) {
    const { ok, away, body, message } = await get(`${url}/${key}`);
    if (key !== value) return;
    if (ok && !body.done && !body.problem) return said(body.share, body.says);
    asking.dispose();
    if (!ok) return failed(away ? message : "The shop does not know of that work any more: begin it again.");
    body.problem ? failed(body.problem, body) : done(body);
  }

  function stop() {
    asking?.dispose();
    if (value && asking) post(`${url}/${value}/drop`, {});
    value = asking = null;
  }

  return { get value() { return value; }, begin, stop, dispose: stop };
}
