import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { webAddress } from "./Written";
import { sayBytes } from "./words";
import "./handed.css";

/** The site that an address leads to, so that it is seen before one goes there. */
export function siteOf(url: string): string {
  try {
    return new URL(url).host;
  } catch {
    return "";
  }
}

/** A thing in a piece of work, on a line: a file or page to be downloaded, a link with the site it leads to. */
export function HandedThing(props: {
  thing: Schemas["WorkFileView"];
  /** Where its bytes are. */
  at: string;
  children?: ReactNode;
}) {
  const { thing } = props;
  return (
    <div className="handed-thing">
      {thing.kind === "Link" && thing.url ? (
        <>
          <a href={webAddress(thing.url)} target="_blank" rel="noreferrer noopener">
            {thing.name}
          </a>
          <span className="soft">link to {siteOf(thing.url)}</span>
        </>
      ) : (
        <>
          <a href={props.at} download>
            {thing.name}
          </a>
          <span className="soft">
            {thing.kind === "Page" && "page, "}
            {sayBytes(thing.size)}
          </span>
        </>
      )}
      {props.children}
    </div>
  );
}
