import { Navigate, Route, Routes } from "react-router";
import { useSending } from "./api/outbox/useOutbox";
import { useReference } from "./api/queries";
import { useSession } from "./api/session";
import { Failure } from "./parts/Failure";
import { Shell } from "./parts/Shell";
import { BenchPlace } from "./places/bench/BenchPlace";
import { BeginSheet } from "./places/dead-tests/BeginSheet";
import { PartsPlace } from "./places/dead-tests/PartsPlace";
import { SheetPlace } from "./places/dead-tests/SheetPlace";
import { SheetsPlace } from "./places/dead-tests/SheetsPlace";
import { HoldingPlace } from "./places/kit/HoldingPlace";
import { KitPlace } from "./places/kit/KitPlace";
import { TesterPlace } from "./places/kit/TesterPlace";
import { BeforePluggingIn } from "./places/plug-in/BeforePluggingIn";
import { PlugInPlace } from "./places/plug-in/PlugInPlace";
import { Begin } from "./places/prove-dead/Begin";
import { ProofPlace } from "./places/prove-dead/ProofPlace";
import { ProofsPlace } from "./places/prove-dead/ProofsPlace";
import { RulesPlace } from "./places/prove-dead/RulesPlace";
import { BeginRound } from "./places/rounds/BeginRound";
import { RoundPlace } from "./places/rounds/RoundPlace";
import { RoundsPlace } from "./places/rounds/RoundsPlace";
import { SignIn } from "./places/sign-in/SignIn";
import { SignInAgain } from "./places/sign-in/SignInAgain";
import { SitePlace } from "./places/site/SitePlace";
import { Sites } from "./places/site/Sites";
import { Today } from "./places/today/Today";
import { WaitingPlace } from "./places/waiting/WaitingPlace";

export function App() {
  const session = useSession();
  useSending();
  if (session.isPending) return <div aria-busy="true" />;
  if (session.isError && !session.data)
    return <Failure error={session.error} retry={() => session.refetch()} />;
  if (!session.data) return <SignIn />;
  return <Places lost={session.data.lost === true} />;
}

/** Every place, once the tables of the trade are there that all of them show. */
function Places({ lost }: { lost: boolean }) {
  const reference = useReference();
  if (reference.isError && !reference.data)
    return <Failure error={reference.error} retry={() => reference.refetch()} />;
  if (!reference.data) return <div aria-busy="true" />;
  return (
    <Shell>
      {lost && <SignInAgain />}
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
        <Route path="/rounds" element={<RoundsPlace />} />
        <Route path="/rounds/new" element={<BeginRound />} />
        <Route path="/rounds/:roundId" element={<RoundPlace />} />
        <Route path="/plug-in" element={<BeforePluggingIn />} />
        <Route path="/plug-in/:pointId/:equipmentId" element={<PlugInPlace />} />
        <Route path="/bench/:pointId" element={<BenchPlace />} />
        <Route path="/waiting" element={<WaitingPlace />} />
        <Route path="*" element={<Navigate to="/today" replace />} />
      </Routes>
    </Shell>
  );
}
