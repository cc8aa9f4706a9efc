import { Button, Text } from "@mantine/core";
import { Link } from "react-router";
import type { SheetLine } from "../../api/client";
import { useSheets } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { VerdictShape } from "../../parts/VerdictShape";
import work from "../../parts/WorkList.module.css";
import { dayOf } from "../../reading/dates";
import classes from "./Sheets.module.css";

const STATES: Record<string, [shape: string, word: string]> = {
  energised: ["closed", "Energised"],
  clear: ["correct", "Clear to energise"],
  "in-the-way": ["unconfirmed", "Not clear"],
};

/** The latest sheet of every circuit, by board, and the way to begin one. */
export function SheetsPlace() {
  const sheets = useSheets();
  if (sheets.isError && !sheets.data) return <Failure error={sheets.error} retry={() => sheets.refetch()} />;
  const found = sheets.data?.sheets ?? [];
  const boards = [...new Set(found.map((s) => `${s.site}, ${s.board}`))];
  return (
    <Page
      title="Dead tests"
      busy={sheets.isPending}
      actions={
        <>
          <Button variant="subtle" component={Link} to="/dead-tests/parts">
            Check a part
          </Button>
          <Button component={Link} to="/dead-tests/new">
            Begin a sheet
          </Button>
        </>
      }
    >
      {sheets.data && found.length === 0 && (
        <Text size="lg" mt="lg">
          Before a circuit is energised: look, loads out, what must be joined, what must not be, the device,
          the insulation. A sheet takes you through them in order and says what is outstanding.
        </Text>
      )}
      {boards.map((board) => (
        <section key={board} className={classes.board} aria-label={board}>
          <h2>{board}</h2>
          {sheets.data?.together
            .filter((t) => `${t.site}, ${t.board}` === board)
            .map((t) => (
              <p key={t.says} className={classes.together}>
                {t.says}
              </p>
            ))}
          <ul className={work.list}>
            {found
              .filter((s) => `${s.site}, ${s.board}` === board)
              .map((s) => (
                <li key={s.id}>
                  <Line sheet={s} />
                </li>
              ))}
          </ul>
        </section>
      ))}
    </Page>
  );
}

function Line({ sheet }: { sheet: SheetLine }) {
  const [shape, word] = STATES[sheet.state] ?? ["untested", sheet.state];
  return (
    <Link to={`/dead-tests/${sheet.id}`} className={classes.line}>
      <VerdictShape kind={sheet.fails ? "hazard" : shape} size={24} />
      <span>
        <strong>{sheet.circuit}</strong>
        <span className="quiet">
          {dayOf(sheet.begun_at)}
          {sheet.lowest && (
            <>
              {" · insulation "}
              <span className="mono">{sheet.lowest}</span>
            </>
          )}
        </span>
        {sheet.halved && <em className={classes.halved}>Insulation less than half of the visit before</em>}
        {sheet.fails && <em>{sheet.said}</em>}
      </span>
      <span className={work.right}>
        {sheet.fails ? "Fails" : word}
        {sheet.left > 0 && <span className="quiet"> · {sheet.left} to do</span>}
      </span>
    </Link>
  );
}
