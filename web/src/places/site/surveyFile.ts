/** A site or a point as a survey file: saved to this device, and brought in from one. */

import client, { answer } from "../../api/client";
import { SURVEY } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { readFile } from "../../parts/files";

export const siteSurvey = (id: string) => () =>
  answer(client.GET("/api/sites/{site_id}/survey", { params: { path: { site_id: id } } }));

export const pointSurvey = (id: string) => () =>
  answer(client.GET("/api/points/{point_id}/survey", { params: { path: { point_id: id } } }));

export function useBringIn(done: (siteId: string) => void) {
  const bringIn = useRecord(SURVEY, async ({ siteId, file }: { siteId: string; file: File }) => {
    const body = { name: "", survey: await readFile(file) };
    return answer(client.PUT("/api/sites/{site_id}/survey", { params: { path: { site_id: siteId } }, body }));
  });
  return {
    ...bringIn,
    mutate: (from: { siteId: string; file: File }) =>
      bringIn.mutate(from, { onSuccess: (site) => done(site.id) }),
  };
}
