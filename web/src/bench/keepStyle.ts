import { api, got } from "../api/client";
import { queries } from "../api/queries";
import type { Style } from "../api/types";
import { useBench } from "../draft/store";

/** Show everything in another unit, and keep it as the job's own where the person may. */
export async function keepStyle(jobId: number, style: Style, mayDesign: boolean): Promise<void> {
  useBench.getState().put({ style });
  if (!mayDesign) return;
  const params = { path: { job_id: jobId } };
  const { shop, shop_number } = await got(api.GET("/api/jobs/{job_id}", { params }));
  await api.PUT("/api/jobs/{job_id}/shop", { params, body: { base: shop_number, shop: { ...shop, style } } });
  await queries.invalidateQueries({ queryKey: ["job", jobId] });
}
