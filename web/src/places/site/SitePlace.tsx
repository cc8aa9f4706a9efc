import { Button, Modal, Stack, Text, Title } from "@mantine/core";
import { type ReactNode, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { Circuit, PointLine, Supply } from "../../api/client";
import { lastPoints } from "../../api/lastPoints";
import { usePractice, useSite } from "../../api/queries";
import { wordOf } from "../../api/reference";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { SaveAs } from "../../parts/SaveAs";
import { CircuitFold } from "./CircuitFold";
import { CircuitForm } from "./CircuitForm";
import { BoardForm, SiteNameForm, SupplyForm } from "./forms";
import { PointForm } from "./PointForm";
import { Retire, Retired } from "./Retire";
import classes from "./Site.module.css";
import { siteSurvey } from "./surveyFile";

/** A site with more circuits shows but the one in hand whole. */
const SHOWN_WHOLE = 3;

type Adding = { title: string; form: ReactNode };

/** Supplies, boards, circuits as runs, points with their verdicts; and each next thing to add where it goes. */
export function SitePlace() {
  const { siteId = "" } = useParams();
  const site = useSite(siteId);
  const practice = usePractice(site.data?.practice);
  const navigate = useNavigate();
  const [query] = useSearchParams();
  const [adding, setAdding] = useState<Adding | null>(null);
  const close = () => setAdding(null);
  if (site.isError && !site.data) return <Failure error={site.error} retry={() => site.refetch()} />;
  if (!site.data || !practice) return <div aria-busy="true" />;
  const { supplies } = site.data;
  const circuits = supplies.flatMap((supply) => supply.boards).flatMap((board) => board.circuits);
  const few = circuits.length <= SHOWN_WHOLE;
  const inHand =
    query.get("circuit") ??
    circuits.find((circuit) => circuit.points.some((point) => point.id === lastPoints()[0]))?.id ??
    circuits[0]?.id;
  const addSupply = () =>
    setAdding({
      title: "Add a supply",
      form: <SupplyForm siteId={siteId} practice={practice} done={close} />,
    });
  const addBoard = (supply: Supply) =>
    setAdding({
      title: `Add a ${wordOf(practice, "board")}`,
      form: <BoardForm supplyId={supply.id} word={wordOf(practice, "board")} done={close} />,
    });
  const changeSite = () =>
    setAdding({
      title: site.data.name,
      form: (
        <>
          <SiteNameForm site={site.data} done={close} />
          <Retire what="site" id={siteId} done={() => navigate("/sites")} />
        </>
      ),
    });
  const changeSupply = (supply: Supply) =>
    setAdding({
      title: supply.name,
      form: (
        <>
          <SupplyForm siteId={siteId} practice={practice} supply={supply} done={close} />
          <Retire what="supply" id={supply.id} done={close} />
        </>
      ),
    });
  const changeBoard = (board: Supply["boards"][number], supply: Supply) =>
    setAdding({
      title: board.name,
      form: (
        <>
          <BoardForm supplyId={supply.id} word={wordOf(practice, "board")} board={board} done={close} />
          <Retire what="board" id={board.id} done={close} />
        </>
      ),
    });
  const change = (circuit: Circuit, boardId: string, supply: Supply) =>
    setAdding({
      title: circuit.name,
      form: (
        <>
          <CircuitForm boardId={boardId} practice={practice} circuit={circuit} done={close} />
          <Retire what="circuit" id={circuit.id} done={close} />
          <Points
            circuit={circuit}
            onPick={(point) =>
              setAdding({
                title: point.name,
                form: (
                  <>
                    <PointForm
                      circuit={circuit}
                      supply={supply}
                      practice={practice}
                      point={point}
                      done={close}
                    />
                    <Retire what="point" id={point.id} done={close} />
                  </>
                ),
              })
            }
          />
        </>
      ),
    });
  return (
    <Page
      title={site.data.name}
      back={["/sites", "Sites"]}
      under={site.data.from_file && `Came from a ${site.data.from_file}`}
      actions={
        <>
          {supplies.length > 0 && (
            <Button component={Link} to={`/rounds/new?site=${siteId}`} variant="default">
              Begin a round
            </Button>
          )}
          {supplies.length > 0 && (
            <SaveAs kind="survey file" name={site.data.name} fetch={siteSurvey(siteId)} />
          )}
          <Button variant="default" onClick={changeSite}>
            Rename
          </Button>
          <Button variant={supplies.length ? "default" : "filled"} onClick={addSupply}>
            Add a supply
          </Button>
        </>
      }
    >
      {supplies.length === 0 && (
        <Text size="lg" mt="lg">
          Start at the source: which supply feeds this place, and how it is earthed. Then its boards, their
          circuits and the points in cable order.
        </Text>
      )}
      {supplies.map((supply) => (
        <section key={supply.id} className={classes.supply} aria-labelledby={`supply-${supply.id}`}>
          <div className={classes.boardHead}>
            <div className={classes.supplyHead}>
              <Title order={2} size={19} id={`supply-${supply.id}`}>
                {supply.name}
              </Title>
              <span className="quiet">
                {supply.system_title} · {supply.earthing}
              </span>
            </div>
            <div>
              <Button
                variant="subtle"
                aria-label={`Change ${supply.name}`}
                onClick={() => changeSupply(supply)}
              >
                Change
              </Button>
              <Button variant={supply.boards.length ? "subtle" : "filled"} onClick={() => addBoard(supply)}>
                Add a {wordOf(practice, "board")}
              </Button>
            </div>
          </div>
          {supply.boards.map((board) => (
            <div key={board.id} className={classes.board}>
              <div className={classes.boardHead}>
                <Title order={3} size={17}>
                  {board.name}
                </Title>
                <div>
                  <Button
                    variant="subtle"
                    aria-label={`Change ${board.name}`}
                    onClick={() => changeBoard(board, supply)}
                  >
                    Change
                  </Button>
                  <Button
                    variant={board.circuits.length ? "subtle" : "filled"}
                    onClick={() =>
                      setAdding({
                        title: "Add a circuit",
                        form: <CircuitForm boardId={board.id} practice={practice} done={close} />,
                      })
                    }
                  >
                    Add a circuit
                  </Button>
                </div>
              </div>
              {board.circuits.map((circuit) => (
                <CircuitFold
                  key={circuit.id}
                  siteId={siteId}
                  circuit={circuit}
                  practice={practice}
                  isOpen={few || circuit.id === inHand}
                  onChange={() => change(circuit, board.id, supply)}
                  onAdd={() =>
                    setAdding({
                      title: `Add a point to ${circuit.name}`,
                      form: <PointForm circuit={circuit} supply={supply} practice={practice} done={close} />,
                    })
                  }
                />
              ))}
            </div>
          ))}
        </section>
      ))}
      <Retired list={site.data.retired} />
      <Modal opened={adding !== null} onClose={close} title={adding?.title}>
        <div key={adding?.title}>{adding?.form}</div>
      </Modal>
    </Page>
  );
}

/** The points of a circuit, to change what is known of one. */
function Points({ circuit, onPick }: { circuit: Circuit; onPick: (point: PointLine) => void }) {
  if (circuit.points.length === 0) return null;
  return (
    <>
      <Title order={3} size={16} mt="lg" mb="xs">
        Its points
      </Title>
      <Stack gap={6}>
        {circuit.points.map((point) => (
          <Button key={point.id} variant="default" justify="flex-start" onClick={() => onPick(point)}>
            {point.name}
          </Button>
        ))}
      </Stack>
    </>
  );
}
