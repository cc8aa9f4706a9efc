import { useDebouncedValue } from "@mantine/hooks";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import client, { answer } from "../../api/client";
import { keys } from "../../api/keys";
import type { Test } from "../../reading/tested";

const TYPING_MS = 120;

/** What a test would come to, as it is typed. An answer stays on screen until the next is there. */
export function useJudged(sheetId: string, line: string, typed: Test | null, tester: string | null) {
  const [test] = useDebouncedValue(typed, TYPING_MS);
  return useQuery({
    queryKey: keys.judged(sheetId, line, test, tester),
    queryFn: () =>
      answer(
        client.POST("/api/sheets/{sheet_id}/judge", {
          params: { path: { sheet_id: sheetId } },
          body: { line, test: test ?? {}, tester },
        }),
      ),
    enabled: test !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
}
