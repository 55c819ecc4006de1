import { api, data, type Schema } from "../api/client";
import { within } from "../api/rigs";
import { listenJobs } from "./changes";

/** The stream says when it is done; asking now and then keeps the job alive, and finds it should the stream be broken. */
const ASK_AGAIN_MS = 4000;

/** Work that takes long: started, told by its share as it goes on, stopped when it is called off, and fetched. */
export async function runJob(
  ask: Schema["AnswersRequest"],
  signal: AbortSignal,
  told: (share: number) => void,
): Promise<Schema["AnswersAnswer"]> {
  const { jobId: id } = data(await api.POST("/api/jobs", { body: ask, signal: within(signal) }));
  const params = { params: { path: { id } } };
  const stop = () => void api.DELETE("/api/jobs/{id}", { ...params, keepalive: true }).catch(() => undefined);
  if (signal.aborted) stop();
  signal.addEventListener("abort", stop, { once: true });
  try {
    for (;;) {
      signal.throwIfAborted();
      const news = newsOf(id, told, signal);
      const { progress, answers } = data(await api.GET("/api/jobs/{id}", { ...params, signal: within(signal) }));
      if (answers) return answers;
      told(progress.share);
      await news;
    }
  } finally {
    signal.removeEventListener("abort", stop);
  }
}

/** Until a job is done, it is called off, or it is time to ask after it. */
const newsOf = (id: string, told: (share: number) => void, signal: AbortSignal) =>
  new Promise<void>((done) => {
    const end = () => {
      stop();
      clearTimeout(timer);
      signal.removeEventListener("abort", end);
      done();
    };
    const stop = listenJobs((job) => {
      if (job.jobId !== id) return;
      told(job.share);
      if (job.done) end();
    });
    const timer = setTimeout(end, ASK_AGAIN_MS);
    signal.addEventListener("abort", end, { once: true });
  });
