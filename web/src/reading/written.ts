/** A reading as the survey format writes it. */

export type Entry = {
  quantity: string;
  mode?: string;
  from?: string;
  to?: string;
  value?: unknown;
  at_least?: unknown;
  below?: unknown;
  over_range?: boolean;
  unit?: string;
  input?: string;
  load_here_a?: unknown;
  load_elsewhere_a?: unknown;
  load_between?: string[];
  device?: string;
  neutral?: string;
  test_ma?: number;
  max?: unknown;
  min?: unknown;
  turns?: number;
  continuous?: boolean;
  sweep?: Station[];
  source?: string;
};

/** Where a detector was held on its walk, metres from where that began. */
export type Station = { m: number; alarm: boolean };

/** Where the probes are: the dark one first. */
export type Probes = { reference: string | null; measuring: string | null };
