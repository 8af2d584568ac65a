/** What a page says while it has nothing to show, and what was refused. */

import type { Link } from "./link";

export function Joining({ link }: { link: Link }) {
  if (link.status === "refused") {
    return <p class="sentence" role="alert">{capital(link.why)}</p>;
  }
  if (link.problem) return <p class="sentence" role="alert">{capital(link.problem)}</p>;
  const words = link.status === "lost" ? "The run does not answer. The page tries again until it does." : "Joining the run…";
  return <p class="sentence" role="status">{words}</p>;
}

export function Problem({ link }: { link: Link }) {
  if (!link.problem) return null;
  return (
    <p class="problem" role="alert">
      {capital(link.problem)}{" "}
      <button class="link" onClick={() => { link.problem = ""; link.tell(); }}>close</button>
    </p>
  );
}

export function capital(text: string): string {
  const end = /[.?!]$/.test(text) ? "" : ".";
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}${end}`;
}
