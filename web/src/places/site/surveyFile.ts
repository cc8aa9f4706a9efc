/** A site or a point as a survey file: saved to this device, and brought in from one. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import client, { answer, Refusal } from "../../api/client";

export function saveAs(name: string, survey: object): void {
  const url = URL.createObjectURL(new Blob([JSON.stringify(survey, null, 1)], { type: "application/json" }));
  const link = Object.assign(document.createElement("a"), { href: url, download: `${name}.survey.json` });
  link.click();
  URL.revokeObjectURL(url);
}

export const useSaveSite = () =>
  useMutation<void, Refusal, { id: string; name: string }>({
    mutationFn: async ({ id, name }) =>
      saveAs(
        name,
        await answer(client.GET("/api/sites/{site_id}/survey", { params: { path: { site_id: id } } })),
      ),
  });

export const useSavePoint = () =>
  useMutation<void, Refusal, { id: string; name: string }>({
    mutationFn: async ({ id, name }) =>
      saveAs(
        name,
        await answer(client.GET("/api/points/{point_id}/survey", { params: { path: { point_id: id } } })),
      ),
  });

export function useBringIn(done: (siteId: string) => void) {
  const queries = useQueryClient();
  return useMutation<{ id: string }, Refusal, { siteId: string; file: File }>({
    mutationFn: async ({ siteId, file }) => {
      const body = { name: "", survey: parsed(await file.text()) };
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

function parsed(text: string): Record<string, unknown> {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new Refusal(422, [{ path: "", text: `not JSON: ${(error as Error).message}` }]);
  }
}
