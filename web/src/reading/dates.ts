/** Dates and times, one style a practice; where several meet, as the browser has it. */

import { theReference } from "../api/reference";

const languageOf = (practice: string | undefined) =>
  practice && theReference().practices.find((known) => known.id === practice)?.language;

export const timeOf = (at: string | number, practice?: string) =>
  new Date(at).toLocaleTimeString(languageOf(practice), { timeStyle: "short" });

export const dayOf = (at: string | number, practice?: string) =>
  new Date(at).toLocaleDateString(languageOf(practice), { dateStyle: "medium" });

export const dayAndTimeOf = (at: string | number, practice?: string) =>
  new Date(at).toLocaleString(languageOf(practice), { dateStyle: "medium", timeStyle: "short" });

export const monthOf = (at: string | number, practice?: string) =>
  new Date(at).toLocaleDateString(languageOf(practice), { month: "short", year: "2-digit" });
