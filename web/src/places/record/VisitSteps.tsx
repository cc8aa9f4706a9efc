import { IconCircle, IconCircleCheck, IconProgress } from "@tabler/icons-react";
import { Link } from "react-router";
import type { Visit, VisitStep } from "../../api/client";
import { dayOf } from "../../reading/dates";
import classes from "./Record.module.css";
import { minutes } from "./VisitPlace";
import { whereIs } from "./where";

const ICONS = { left: IconCircle, "under-way": IconProgress, done: IconCircleCheck };
const SAID = { left: "to do", "under-way": "begun", done: "done" };

/** Every step in the order of the work, board by board. */
export function VisitSteps({ visit }: { visit: Visit }) {
  const boards = [...new Set(visit.plan.map((step) => step.board))];
  return boards.map((board) => (
    <section key={board} aria-label={board}>
      <h2>{board}</h2>
      <ol className={classes.steps}>
        {visit.plan
          .filter((step) => step.board === board)
          .map((step) => (
            <Step key={`${step.work} ${step.circuit.id}`} step={step} visit={visit} />
          ))}
      </ol>
    </section>
  ));
}

function Step({ step, visit }: { step: VisitStep; visit: Visit }) {
  const Icon = ICONS[step.state];
  return (
    <li>
      <Link to={whereIs(step, visit.site.id)} className={classes.step} data-state={step.state}>
        <Icon size={24} aria-hidden="true" />
        <span>
          <strong>{step.circuit.name}</strong> {step.title.toLowerCase()}
          <span className="quiet">
            {[
              step.points.length === 1 ? step.points[0] : `${step.points.length} points`,
              step.said,
              step.two_people,
            ]
              .filter(Boolean)
              .map((text) => ` · ${text}`)}
          </span>
        </span>
        <span className={classes.right}>
          {SAID[step.state]}
          <span className="quiet">
            {step.state !== "done" && minutes(step.minutes)}
            {step.state !== "done" && step.since && `, as on ${dayOf(step.since, visit.practice)}`}
          </span>
        </span>
      </Link>
    </li>
  );
}
