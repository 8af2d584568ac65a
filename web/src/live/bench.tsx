/** The bench: a pattern on the real lines, buttons for what is seen, and the line to change. */

import { useRef, useState } from "preact/hooks";
import type { Bench as BenchState } from "../data";
import { mayLook } from "./hand";
import { capital } from "./joining";
import type { Link } from "./link";

type Asked = Pick<BenchState, "pattern" | "line" | "part">;

export function Bench({ link, bench }: { link: Link; bench: BenchState }) {
  const key = `${bench.pattern}/${bench.line ?? ""}/${bench.part ?? ""}`;
  const [given, setGiven] = useState<{ to: string; answers: Record<number, string> }>({ to: key, answers: {} });
  const answers = given.to === key ? given.answers : {};
  const answer = (place: number, value: string): void => setGiven({ to: key, answers: { ...answers, [place]: value } });
  // What was asked for last counts, though the bench may not have said yet that it shows it.
  const wanted = useRef<Asked>({ pattern: bench.pattern, line: bench.line, part: bench.part });
  const show = (change: Partial<Asked>): void => {
    wanted.current = { ...wanted.current, ...change };
    link.steer("PUT", "/api/bench/pattern", wanted.current);
  };
  const said = bench.asks
    .map((ask, i) => [ask.key, answers[i] ?? ""] as const)
    .filter(([, value]) => value !== "")
    .map(([name, value]) => (name ? `${name}=${value}` : value))
    .join(" ");
  const isAnswered = bench.asks.length > 0 && (bench.asks[0]!.key ? said !== "" : bench.asks.every((_, i) => answers[i]));
  return (
    <div class="bench">
      <div class="scenes" role="group" aria-label="Pattern">
        {bench.patterns.map((pattern) => (
          <button key={pattern} class={pattern === bench.pattern ? "on" : ""} aria-pressed={pattern === bench.pattern} disabled={mayLook(link)}
            onClick={() => show({ pattern })}>
            {pattern}
          </button>
        ))}
      </div>
      <div class="two-columns">
        <label>line{" "}
          <select aria-label="Line" value={bench.line ?? ""} onChange={(event) => show({ line: event.currentTarget.value || null, part: null })}>
            <option value="">all</option>
            {bench.lines.map((line) => <option key={line} value={line}>{line}</option>)}
          </select>
        </label>
        <label>part{" "}
          <select aria-label="Part" value={bench.part ?? ""} onChange={(event) => show({ part: event.currentTarget.value || null })}>
            <option value="">all</option>
            {bench.parts.map((part) => <option key={part} value={part}>{part}</option>)}
          </select>
        </label>
      </div>
      <p class="should" aria-live="polite"><b>You should see:</b> {bench.words || "the next step"}</p>
      <div class="two-columns">
        <button onClick={() => link.steer("POST", "/api/bench/step", { by: -1 })}>‹ previous step</button>
        <button onClick={() => link.steer("POST", "/api/bench/step", { by: 1 })}>next step ›</button>
      </div>
      <p class="faint">step {bench.step} of {bench.steps}; level {bench.level.toFixed(2)}, at most {bench.amps.join(", ")}</p>
      {bench.problem && <p class="problem" role="alert">{capital(bench.problem)}</p>}
      {bench.asks.map((ask, i) => (
        <fieldset key={`${key}/${ask.key}/${i}`}>
          <legend>{ask.text}</legend>
          <div class="words">
            {ask.options.map((option) => (
              <button key={option} class={answers[i] === option ? "on" : ""} aria-pressed={answers[i] === option}
                onClick={() => answer(i, answers[i] === option ? "" : option)}>
                {/^(red|green|blue|white|yellow|magenta|cyan)$/.test(option) && <i class="chip" style={{ background: option }} />}
                {option}
              </button>
            ))}
            {ask.options.length === 0 && (
              <input type="number" min={1} aria-label={ask.text} value={answers[i] ?? ""}
                onInput={(event) => answer(i, event.currentTarget.value)} />
            )}
          </div>
        </fieldset>
      ))}
      {bench.asks.length > 0 && (
        <button class="wide big" disabled={!isAnswered || mayLook(link)} onClick={() => link.steer("POST", "/api/bench/saw", { text: said })}>
          That is what I see
        </button>
      )}
      {bench.verdict && (
        <section class={bench.is_explained ? "verdict" : "verdict bad"} aria-label="Conclusion">
          <p>{capital(bench.verdict)}</p>
          {bench.ways.map((way, i) => {
            const canApply = way.at(-1) !== "";
            return (
              <div key={i} class="way">
                {i > 0 && <p class="faint">or:</p>}
                {way.filter(Boolean).map((line) => <code key={line}>{line}</code>)}
                {canApply && <button class="wide big" disabled={mayLook(link)} onClick={() => link.steer("POST", "/api/bench/apply", { way: i })}>Write it into the design</button>}
              </div>
            );
          })}
          {bench.hint && <p class="faint">{capital(bench.hint)}</p>}
        </section>
      )}
    </div>
  );
}
