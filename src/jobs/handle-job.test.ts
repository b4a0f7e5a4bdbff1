import { describe, expect, it } from "vitest";
import { trustedId } from "../core/kernel/ids";
import type { Job } from "../core/ports";
import type { Deps } from "../operations/index.server";
import { handleJob } from "./handle-job";

// A job that cannot be right must not reach the database.
const deps = new Proxy({} as Deps, {
  get: (_, name) => {
    throw new Error(`the job came as far as deps.${String(name)}`);
  },
});
const handled = (job: Job) => handleJob(deps, job, { number: 1, last: true });

describe("a job", () => {
  it.each<[Job, RegExp]>([
    [{ kind: "send-message", messageId: trustedId("x'; drop table message") }, /which is no id/],
    [{ kind: "run-import", importId: "" }, /import without an id/],
    [{ kind: "run-bulk", runId: trustedId("7") }, /run without an id/],
    [{ kind: "pack-parcel", parcelId: trustedId("") }, /parcel without an id/],
  ])("that names nothing is refused: %j", async (job, words) => {
    await expect(handled(job)).rejects.toThrow(words);
  });
  it.each<Job>([{ kind: "wake-rested" }, { kind: "empty-bins" }, { kind: "resume-work" }])(
    "without particulars does its work: %j",
    async (job) => expect(handled(job)).rejects.toThrow(/as far as deps\./),
  );
  it("is done in all its parts, whatever becomes of each", async () => {
    let parts = 0;
    const broken = new Proxy({} as Deps, {
      get: () => {
        parts += 1;
        throw new Error("broken");
      },
    });
    await expect(handleJob(broken, { kind: "tell-by-clock" }, { number: 1, last: true })).rejects.toThrow("broken");
    expect(parts).toBe(6);
  });
});
