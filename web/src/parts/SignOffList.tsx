import { IconCertificate } from "@tabler/icons-react";
import { Link } from "react-router";
import type { SignOffLine } from "../api/client";
import { dayAndTimeOf } from "../reading/dates";
import work from "./WorkList.module.css";

/** Sign-offs, each with its number in the crew's chain. */
export function SignOffList({ signOffs }: { signOffs: SignOffLine[] }) {
  return (
    <ul className={work.list}>
      {signOffs.map((one) => (
        <li key={one.id}>
          <Link to={`/record/sign-offs/${one.id}`} className={work.line}>
            <IconCertificate size={24} aria-hidden="true" />
            <span>
              <strong>{one.what === "circuit" ? one.name : one.site.name}</strong>
              <span className="quiet">
                {one.what === "visit" ? `Visit: ${one.name}` : `Whole ${one.what}`} ·{" "}
                {dayAndTimeOf(one.signed_at)}, {one.by}
              </span>
            </span>
            <span className={work.right}>number {one.number}</span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
