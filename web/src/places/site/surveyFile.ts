/** A site or a point as a survey file: saved to this device, and brought in from one. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import client, { answer, Refusal } from "../../api/client";
import { saveFile } from "../../parts/saveFile";

export const useSaveSite = () =>
  useMutation<void, Refusal, { id: string; name: string }>({
    mutationFn: async ({ id, name }) =>
      saveFile(
        await answer(client.GET("/api/sites/{site_id}/survey", { params: { path: { site_id: id } } })),
        name,
      ),
  });

export const useSavePoint = () =>
  useMutation<void, Refusal, { id: string; name: string }>({
    mutationFn: async ({ id, name }) =>
      saveFile(
        await answer(client.GET("/api/points/{point_id}/survey", { params: { path: { point_id: id } } })),
        name,
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
