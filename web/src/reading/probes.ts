/** Where the probes are: the dark one first. */
export type Probes = { reference: string | null; measuring: string | null };
