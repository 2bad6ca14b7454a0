import { api, got, Refused } from "../api/client";
import { queries } from "../api/queries";
import type { JobHead } from "../api/types";

/** Keep a job's shop settings; what somebody else changed since is fetched and told, not overwritten. */
export async function keepShop(job: JobHead, shop: JobHead["shop"]): Promise<void> {
  const params = { path: { job_id: job.id } };
  try {
    await got(api.PUT("/api/jobs/{job_id}/shop", { params, body: { base: job.shop_number, shop } }));
  } catch (error) {
    if (!(error instanceof Refused) || error.status !== 409) throw error;
    await queries.invalidateQueries({ queryKey: ["job", job.id] });
    throw new Error("somebody changed the shop's settings meanwhile: look at them, then keep again");
  }
  await queries.invalidateQueries({ queryKey: ["job", job.id] });
}
