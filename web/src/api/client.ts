/** The typed client of the server's routes, and the one error shape they answer with. */

import createClient from "openapi-fetch";
import { heardDate } from "./clock";
import { fetchedOnce } from "./fetchedOnce";
import { lineAnswered, lineFailed } from "./line";
import { BASE } from "./sandbox";
import type { components, paths } from "./schema";

export type Act = components["schemas"]["Session"]["may"][number];
export type People = components["schemas"]["PeopleOut"];
export type Member = components["schemas"]["MemberOut"];
export type OneTimeLink = components["schemas"]["OneTimeLinkOut"];
export type Role = Member["role"];
export type Own = components["schemas"]["OwnOut"];
export type ComingIn = components["schemas"]["ComingIn"];
export type Effects = components["schemas"]["EffectsOut"];
export type Bench = components["schemas"]["BenchOut"];
export type Reading = components["schemas"]["ReadingOut"];
export type Interpretation = components["schemas"]["InterpretationOut"];
export type Condition = components["schemas"]["ConditionOut"];
export type NextTest = components["schemas"]["NextTestOut"];
export type Story = components["schemas"]["StoryOut"];
export type SiteLine = components["schemas"]["SiteLine"];
export type Site = components["schemas"]["SiteOut"];
export type Supply = components["schemas"]["SupplyOut"];
export type Circuit = components["schemas"]["CircuitOut"];
export type PointLine = components["schemas"]["PointLine"];
export type Practice = components["schemas"]["PracticeRow"];
export type Reference = components["schemas"]["Reference"];
export type Tester = components["schemas"]["TesterOut"];
export type TesterPage = components["schemas"]["TesterPage"];
export type TesterIn = components["schemas"]["TesterIn"];
export type Part = components["schemas"]["PartOut"];
export type Fit = components["schemas"]["FitOut"];
export type Holding = components["schemas"]["HoldingOut"];
export type CheckItem = components["schemas"]["ItemOut"];
export type Proof = components["schemas"]["ProofOut"];
export type ProofPair = components["schemas"]["PairOut"];
export type ProofEvent = components["schemas"]["EventOut"];
export type ProofTester = components["schemas"]["ProofTester"];
export type ProofLine = components["schemas"]["ProofLine"];
export type Sheet = components["schemas"]["SheetOut"];
export type SheetLine = components["schemas"]["SheetLine"];
export type TestLine = components["schemas"]["LineOut"];
export type SheetStep = components["schemas"]["StepOut"];
export type Live = components["schemas"]["LiveOut"];
export type Round = components["schemas"]["RoundOut"];
export type RoundLine = components["schemas"]["RoundLine"];
export type Hunt = components["schemas"]["HuntOut"];
export type AlongRun = components["schemas"]["AlongRun"];
export type AlongChain = components["schemas"]["AlongChain"];
export type OverBoard = components["schemas"]["OverBoard"];
export type Guided = components["schemas"]["GuidedHuntOut"];
export type GuidedStep = components["schemas"]["GuideStepOut"];
export type HuntLiveIn = components["schemas"]["HuntLiveIn"];
export type HuntIn = components["schemas"]["HuntIn"];
export type HuntLine = components["schemas"]["HuntLine"];
export type Intake = components["schemas"]["IntakeOut"];
export type HuntEventIn = components["schemas"]["HuntEventIn"];
export type Visit = components["schemas"]["VisitOut"];
export type VisitLine = components["schemas"]["VisitLine"];
export type VisitStep = components["schemas"]["VisitStep"];
export type VisitEventIn = components["schemas"]["VisitEventIn"];
export type Plannable = components["schemas"]["PlannableOut"];
export type SignOffLine = components["schemas"]["SignOffLine"];
export type Signed = components["schemas"]["SignedContent"];
export type SignedPoint = components["schemas"]["SignedPoint"];
export type SignedCircuit = components["schemas"]["SignedCircuit"];
export type StandingPoint = components["schemas"]["StandingOut"];
export type BroughtFile = components["schemas"]["BroughtOut"];
export type RecordLookedAt = components["schemas"]["RecordLookedAt"];
export type RowsLookedAt = components["schemas"]["RowsLookedAt"];
/** How a file of rows is to be read; what is left out is as before, or as it is proposed. */
export type RowsHow = {
  columns?: RowsLookedAt["columns"];
  fixed?: RowsLookedAt["fixed"];
  decimal?: string;
  zone?: string;
  site?: string | null;
};
export type PracticeList = components["schemas"]["PracticeList"];
export type CaseLine = components["schemas"]["CaseLine"];
export type CaseHere = components["schemas"]["CaseOut"];
export type Debrief = components["schemas"]["DebriefOut"];
export type Trend = components["schemas"]["TrendOut"];
export type OnRecord = components["schemas"]["FoundOut"];
export type Happened = components["schemas"]["Happened"];
export type HangIn = components["schemas"]["HangIn"];
export type Leaning = components["schemas"]["LeaningOut"];
export type Stop = components["schemas"]["StopOut"];
export type Quick = components["schemas"]["QuickOut"];
export type PlugIn = components["schemas"]["PlugInOut"];
export type Equipment = components["schemas"]["EquipmentOut"];
export type OutletLine = components["schemas"]["OutletLine"];
export type Sweep = components["schemas"]["SweepOut"];
export type Loads = components["schemas"]["LoadsOut"];
export type Judged = components["schemas"]["JudgedOut"];
export type JudgedReading = components["schemas"]["JudgedReadingOut"];
export type ResultBar = components["schemas"]["BarOut"];
export type RingBar = components["schemas"]["RingBarOut"];
export type PairHistory = components["schemas"]["HistoryOut"];
export type SheetTester = components["schemas"]["SheetTester"];
export type PartCheck = components["schemas"]["QuickCheckOut"];
export type Rules = components["schemas"]["RulesOut"];
export type Session = components["schemas"]["Session"];
export type Problem = components["schemas"]["Problem"];
export type PartIn = components["schemas"]["PartIn"];
export type SupplyIn = components["schemas"]["SupplyIn"];
export type SiteIn = components["schemas"]["SiteIn"];
export type PointIn = components["schemas"]["PointIn"];
export type HoldingIn = components["schemas"]["HoldingIn"];
export type ProofIn = components["schemas"]["ProofIn"];
export type RoundEventIn = components["schemas"]["RoundEventIn"];

/** An entry on its way to the server: a number in it may be what was typed, for the server names what is no number. */
export type Typed<T> = T extends number ? T | string : T extends object ? { [K in keyof T]: Typed<T[K]> } : T;
export const asTyped = <T>(entry: Typed<T>) => entry as unknown as T;

/** A reading as the survey format writes it. */
export type Entry = Typed<components["schemas"]["ReadingEntry"]>;
/** Where a detector was held on its walk, metres from where that began. */
export type Station = components["schemas"]["StationEntry"];
export type Quantity = components["schemas"]["ReadingEntry"]["quantity"];
export type Happening = components["schemas"]["Happening"];
export type EventEntry = Typed<Happening>;
export type SheetEntrySent = NonNullable<components["schemas"]["EntryIn"]["entry"]>;
export type SheetEntry = Typed<SheetEntrySent>;

/** What the server said no to, or that it could not be reached. Nothing typed is lost by either. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly problems: Problem[],
  ) {
    super(problems.map((p) => (p.path ? `${p.path}: ${p.text}` : p.text)).join("\n"));
  }

  /** What is wrong with one field, if anything. */
  at = (path: string) => this.problems.find((problem) => problem.path === path)?.text;
}

const NO_SERVER = "The server cannot be reached. Nothing is lost: try again.";

function unreached(): Refusal {
  lineFailed();
  return new Refusal(0, [{ path: "", text: NO_SERVER }]);
}

const client = createClient<paths>({
  baseUrl: `${BASE}/`,
  fetch: async (request) => {
    try {
      const response = await fetchedOnce(request);
      lineAnswered();
      heardDate(response.headers.get("Date"));
      return response;
    } catch {
      throw unreached();
    }
  },
});

client.use({
  onRequest({ request }) {
    const token = document.cookie.match(/csrftoken=([^;]+)/)?.[1];
    if (token && request.method !== "GET") request.headers.set("X-CSRFToken", token);
    return request;
  },
});

/** The data of an answer, or a Refusal thrown. One cut off half-way is none: it may be recorded, and is asked for again. */
export async function answer<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await call.catch((cut: unknown) => {
    throw cut instanceof Refusal ? cut : unreached();
  });
  if (response.ok) return data as T;
  const problems = (error as { problems?: Problem[] } | undefined)?.problems;
  throw new Refusal(
    response.status,
    problems ?? [{ path: "", text: `The server failed (${response.status}). Try again.` }],
  );
}

export default client;
