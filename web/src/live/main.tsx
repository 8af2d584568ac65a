/** Starts the page of a run: the whole of it, or at /panel what its author put onto a phone. */

import { render } from "preact";
import "../style.css";
import "./live.css";
import { LiveApp } from "./app";
import { Link, tokenOf } from "./link";
import { Panel } from "./panel";

const link = new Link(tokenOf(location, localStorage));
Object.assign(globalThis, { fendra: link });
const page = document.getElementById("page")!;
page.replaceChildren();
render(location.pathname === "/panel" ? <Panel link={link} /> : <LiveApp link={link} />, page);
link.join();
