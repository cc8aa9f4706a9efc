import type { Guided, Hunt } from "../../../api/client";
import classes from "../Hunts.module.css";

/** What was done, each with the reading that chose what came then. */
export function GuidePath({ hunt, guide }: { hunt: Hunt; guide: Guided }) {
  if (guide.path.length === 0)
    return <p className="quiet">What is done is kept here, with the reading that chose what came next.</p>;
  return (
    <ol className={classes.path}>
      {guide.path.map((passed) => (
        <li key={passed.number} data-contradicts={hunt.seen[passed.number]?.contradicts || undefined}>
          <span className="quiet">
            {passed.title}
            {passed.name && ` · ${hunt.names[passed.name] ?? passed.name}`}
          </span>
          <span className={classes.saw}>{passed.said}</span>
          {passed.photo && (
            <a
              href={`/api/photos/${passed.photo}`}
              target="_blank"
              rel="noreferrer"
              className={classes.picture}
            >
              <img src={`/api/photos/${passed.photo}`} alt={passed.title} />
            </a>
          )}
        </li>
      ))}
    </ol>
  );
}
