/** A site or a point as a survey file: saved to this device, and brought in from one. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import client, { answer, type Refusal } from "../../api/client";
import { readFile } from "../../parts/files";

export const siteSurvey = (id: string) => () =>
  answer(client.GET("/api/sites/{site_id}/survey", { params: { path: { site_id: id } } }));

export const pointSurvey = (id: string) => () =>
  answer(client.GET("/api/points/{point_id}/survey", { params: { path: { point_id: id } } }));

export function useBringIn(done: (siteId: string) => void) {
  const queries = useQueryClient();
  return useMutation<{ id: string }, Refusal, { siteId: string; file: File }>({
    mutationFn: async ({ siteId, file }) => {
      const body = { name: "", survey: await readFile(file) };
      return answer(
        client.PUT("/api/sites/{site_id}/survey", { params: { path: { site_id: siteId } }, body }),
      );
    },
    onSuccess: async (site) => {
      await queries.invalidateQueries();
      done(site.id);
    },
  });
}
