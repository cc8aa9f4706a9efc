import { Navigate, Route, Routes } from "react-router";
import { useSession } from "./api/queries";
import { Failure } from "./parts/Failure";
import { Shell } from "./parts/Shell";
import { BenchPlace } from "./places/bench/BenchPlace";
import { SignIn } from "./places/sign-in/SignIn";
import { SitePlace } from "./places/site/SitePlace";
import { Sites } from "./places/site/Sites";

export function App() {
  const session = useSession();
  if (session.isPending) return <div aria-busy="true" />;
  if (session.isError) return <Failure error={session.error} retry={() => session.refetch()} />;
  if (!session.data) return <SignIn />;
  return (
    <Shell session={session.data}>
      <Routes>
        <Route path="/" element={<Navigate to="/sites" replace />} />
        <Route path="/sites" element={<Sites />} />
        <Route path="/sites/:siteId" element={<SitePlace />} />
        <Route path="/bench/:pointId" element={<BenchPlace />} />
        <Route path="*" element={<Navigate to="/sites" replace />} />
      </Routes>
    </Shell>
  );
}
