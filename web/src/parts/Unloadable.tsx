import { Button } from "@mantine/core";
import { Component, type ReactNode } from "react";
import wrong from "./Wrong.module.css";

/**
 * A place that could not be loaded, or broke: said, with a way on. What was recorded is safe in either case.
 * `over`: it is something over a place, which stays as it is.
 */
export class Unloadable extends Component<{ children: ReactNode; over?: boolean }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    if (this.props.over)
      return (
        <p role="alert" className={wrong.wrong}>
          This cannot be shown without a line: it was not opened on this device before.
        </p>
      );
    return (
      <div style={{ padding: 24 }}>
        <h1>This place cannot be shown</h1>
        <p role="alert" className={wrong.wrong}>
          It was not opened on this device before and there is no line, or something in it failed. What was
          recorded is kept.
        </p>
        <Button onClick={() => window.location.reload()}>Load it again</Button>
      </div>
    );
  }
}
