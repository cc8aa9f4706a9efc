import type { PairHistory } from "../../api/client";
import { Trend } from "../../parts/Trend";

/** Insulation from visit to visit, at 20 °C on a log scale. */
export function History({ history, practice }: { history: PairHistory; practice: string }) {
  const series = {
    title: `Insulation ${history.title}`,
    unit: "MΩ",
    marks: history.marks.map((mark) => ({ ...mark, value: mark.mohm_20c, jumped: mark.halved })),
    limits: [{ value: history.limit_mohm, up: history.limit_up }],
    ticks: history.ticks.map(({ mohm, up }) => ({ value: mohm, up })),
    jumped: history.halved,
  };
  return <Trend series={series} practice={practice} />;
}
