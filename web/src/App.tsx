import { type ComponentType, lazy, Suspense } from "react";
import { Navigate, Route, Routes } from "react-router";
import { useFetchAhead } from "./api/fetchAhead";
import { useOpening } from "./api/opening";
import { useSending } from "./api/outbox/useOutbox";
import { useCase } from "./api/practice";
import { useReference } from "./api/queries";
import { CASE, PRACTICE } from "./api/sandbox";
import { useSession } from "./api/session";
import { Failure } from "./parts/Failure";
import { late } from "./parts/late";
import { inACase } from "./parts/rail";
import { Shell } from "./parts/Shell";
import { Unloadable } from "./parts/Unloadable";

/** A place is loaded when it is first entered. */
const place = <K extends string>(load: () => Promise<Record<K, ComponentType>>, name: K) =>
  lazy(async () => ({ default: (await load())[name] }));

const MeasureNow = place(() => import("./places/measure/MeasureNow"), "MeasureNow");
const BenchPlace = place(() => import("./places/bench/BenchPlace"), "BenchPlace");
const BeginSheet = place(() => import("./places/dead-tests/BeginSheet"), "BeginSheet");
const PartsPlace = place(() => import("./places/dead-tests/PartsPlace"), "PartsPlace");
const SheetPlace = place(() => import("./places/dead-tests/SheetPlace"), "SheetPlace");
const SheetsPlace = place(() => import("./places/dead-tests/SheetsPlace"), "SheetsPlace");
const HoldingPlace = place(() => import("./places/kit/HoldingPlace"), "HoldingPlace");
const GuestSite = place(() => import("./places/guest/GuestSite"), "GuestSite");
const KitPlace = place(() => import("./places/kit/KitPlace"), "KitPlace");
const TesterPlace = place(() => import("./places/kit/TesterPlace"), "TesterPlace");
const BeforePluggingIn = place(() => import("./places/plug-in/BeforePluggingIn"), "BeforePluggingIn");
const PlugInPlace = place(() => import("./places/plug-in/PlugInPlace"), "PlugInPlace");
const Begin = place(() => import("./places/prove-dead/Begin"), "Begin");
const ProofPlace = place(() => import("./places/prove-dead/ProofPlace"), "ProofPlace");
const ProofsPlace = place(() => import("./places/prove-dead/ProofsPlace"), "ProofsPlace");
const RulesPlace = place(() => import("./places/prove-dead/RulesPlace"), "RulesPlace");
const BeginHunt = place(() => import("./places/hunts/BeginHunt"), "BeginHunt");
const HuntPlace = place(() => import("./places/hunts/HuntPlace"), "HuntPlace");
const HuntsPlace = place(() => import("./places/hunts/HuntsPlace"), "HuntsPlace");
const BeginRound = place(() => import("./places/rounds/BeginRound"), "BeginRound");
const PracticePlace = place(() => import("./places/practice/PracticePlace"), "PracticePlace");
const DebriefPlace = place(() => import("./places/practice/DebriefPlace"), "DebriefPlace");
const PeoplePlace = place(() => import("./places/people/PeoplePlace"), "PeoplePlace");
const PlanVisit = place(() => import("./places/record/PlanVisit"), "PlanVisit");
const RecordPlace = place(() => import("./places/record/RecordPlace"), "RecordPlace");
const DraftPlace = place(() => import("./places/record/DraftPlace"), "DraftPlace");
const LabelsPlace = place(() => import("./places/record/LabelsPlace"), "LabelsPlace");
const FilesPlace = place(() => import("./places/files/FilesPlace"), "FilesPlace");
const StandingPlace = place(() => import("./places/record/StandingPlace"), "StandingPlace");
const TimelinePlace = place(() => import("./places/record/TimelinePlace"), "TimelinePlace");
const SignOffPlace = place(() => import("./places/record/SignOffPlace"), "SignOffPlace");
const VisitPlace = place(() => import("./places/record/VisitPlace"), "VisitPlace");
const RoundPlace = place(() => import("./places/rounds/RoundPlace"), "RoundPlace");
const RoundsPlace = place(() => import("./places/rounds/RoundsPlace"), "RoundsPlace");
const SitePlace = place(() => import("./places/site/SitePlace"), "SitePlace");
const Sites = place(() => import("./places/site/Sites"), "Sites");
const Today = place(() => import("./places/today/Today"), "Today");
const OwnPlace = late(async () => ({
  default: (await import("./places/own/OwnPlace")).OwnPlace,
}));
const WaitingPlace = late(async () => ({
  default: (await import("./places/waiting/WaitingPlace")).WaitingPlace,
}));
const Join = place(() => import("./places/sign-in/Join"), "Join");
const SignIn = place(() => import("./places/sign-in/SignIn"), "SignIn");
const SignInAgain = late(async () => ({
  default: (await import("./places/sign-in/SignInAgain")).SignInAgain,
}));

/** By a one-time link one comes in, whoever is signed in on the device. */
const JOIN = "/join";

export function App() {
  if (window.location.pathname === JOIN)
    return (
      <Unloadable>
        <Suspense fallback={<div aria-busy="true" />}>
          <Join />
        </Suspense>
      </Unloadable>
    );
  return <SignedIn />;
}

function SignedIn() {
  const session = useSession();
  useOpening();
  useSending();
  useFetchAhead();
  if (session.isPending) return <div aria-busy="true" />;
  if (session.isError && !session.data)
    return <Failure error={session.error} retry={() => session.refetch()} />;
  if (CASE !== null && (!session.data || session.data.lost)) {
    window.location.assign(PRACTICE);
    return <div aria-busy="true" />;
  }
  if (!session.data)
    return (
      <Unloadable>
        <Suspense fallback={<div aria-busy="true" />}>
          <SignIn />
        </Suspense>
      </Unloadable>
    );
  return (
    <Places
      lost={session.data.lost === true}
      guest={session.data.role === "guest" ? session.data.site : null}
    />
  );
}

/** Every place, once the tables of the trade are there that all of them show. */
function Places({ lost, guest }: { lost: boolean; guest: string | null }) {
  const reference = useReference();
  if (reference.isError && !reference.data)
    return <Failure error={reference.error} retry={() => reference.refetch()} />;
  if (!reference.data) return <div aria-busy="true" />;
  return (
    <Shell guest={guest}>
      {lost && (
        <Unloadable over>
          <Suspense>
            <SignInAgain />
          </Suspense>
        </Unloadable>
      )}
      <Unloadable>
        <Suspense fallback={<div aria-busy="true" />}>
          {guest ? <GuestPlaces site={guest} /> : CASE ? <CasePlaces /> : <CrewPlaces />}
        </Suspense>
      </Unloadable>
    </Shell>
  );
}

/** What a guest gets: one site, and what is on record of it. */
function GuestPlaces({ site }: { site: string }) {
  return (
    <Routes>
      <Route path="/sites/:siteId" element={<GuestSite />} />
      <Route path="/record/timeline/:scope/:of" element={<TimelinePlace />} />
      <Route path="/record/sign-offs/:signOffId" element={<SignOffPlace />} />
      <Route path="/own" element={<OwnPlace />} />
      <Route path="*" element={<Navigate to={`/sites/${site}`} replace />} />
    </Routes>
  );
}

/** Inside a practice case: the same places, of its own sandbox. */
function CasePlaces() {
  const here = useCase();
  if (here.isError && !here.data) return <Failure error={here.error} retry={() => here.refetch()} />;
  if (!here.data) return <div aria-busy="true" />;
  const begins = inACase(here.data)[0]?.to ?? "";
  return (
    <Routes>
      <Route path="/bench/:pointId" element={<BenchPlace />} />
      <Route path="/prove-dead" element={<ProofsPlace />} />
      <Route path="/prove-dead/new" element={<Begin />} />
      <Route path="/prove-dead/:proofId" element={<ProofPlace />} />
      <Route path="/dead-tests" element={<SheetsPlace />} />
      <Route path="/dead-tests/new" element={<BeginSheet />} />
      <Route path="/dead-tests/:sheetId" element={<SheetPlace />} />
      <Route path="/hunts/:huntId" element={<HuntPlace />} />
      <Route path="/rounds" element={<RoundsPlace />} />
      <Route path="/rounds/new" element={<BeginRound />} />
      <Route path="/rounds/:roundId" element={<RoundPlace />} />
      <Route path="/waiting" element={<WaitingPlace />} />
      <Route path="/debrief" element={<DebriefPlace />} />
      <Route path="*" element={<Navigate to={begins} replace />} />
    </Routes>
  );
}

function CrewPlaces() {
  return (
    <Routes>
      <Route path="/" element={<Navigate to="/today" replace />} />
      <Route path="/today" element={<Today />} />
      <Route path="/kit" element={<KitPlace />} />
      <Route path="/kit/holding" element={<HoldingPlace />} />
      <Route path="/kit/:testerId" element={<TesterPlace />} />
      <Route path="/prove-dead" element={<ProofsPlace />} />
      <Route path="/prove-dead/new" element={<Begin />} />
      <Route path="/prove-dead/rules" element={<RulesPlace />} />
      <Route path="/prove-dead/:proofId" element={<ProofPlace />} />
      <Route path="/dead-tests" element={<SheetsPlace />} />
      <Route path="/dead-tests/new" element={<BeginSheet />} />
      <Route path="/dead-tests/parts" element={<PartsPlace />} />
      <Route path="/dead-tests/:sheetId" element={<SheetPlace />} />
      <Route path="/sites" element={<Sites />} />
      <Route path="/sites/:siteId" element={<SitePlace />} />
      <Route path="/hunts" element={<HuntsPlace />} />
      <Route path="/hunts/new" element={<BeginHunt />} />
      <Route path="/hunts/:huntId" element={<HuntPlace />} />
      <Route path="/rounds" element={<RoundsPlace />} />
      <Route path="/rounds/new" element={<BeginRound />} />
      <Route path="/rounds/:roundId" element={<RoundPlace />} />
      <Route path="/record" element={<RecordPlace />} />
      <Route path="/record/visits/new" element={<PlanVisit />} />
      <Route path="/record/visits/:visitId" element={<VisitPlace />} />
      <Route path="/record/reports/:what/:of" element={<DraftPlace />} />
      <Route path="/record/labels" element={<LabelsPlace />} />
      <Route path="/record/points/:what" element={<StandingPlace />} />
      <Route path="/record/files" element={<FilesPlace />} />
      <Route path="/record/timeline/:scope/:of" element={<TimelinePlace />} />
      <Route path="/record/sign-offs/:signOffId" element={<SignOffPlace />} />
      <Route path="/plug-in" element={<BeforePluggingIn />} />
      <Route path="/plug-in/:pointId/:equipmentId" element={<PlugInPlace />} />
      <Route path="/measure" element={<MeasureNow />} />
      <Route path="/bench/:pointId" element={<BenchPlace />} />
      <Route path="/waiting" element={<WaitingPlace />} />
      <Route path="/own" element={<OwnPlace />} />
      <Route path="/practice" element={<PracticePlace />} />
      <Route path="/people" element={<PeoplePlace />} />
      <Route path="*" element={<Navigate to="/today" replace />} />
    </Routes>
  );
}
