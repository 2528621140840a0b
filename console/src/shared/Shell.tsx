import { useMantineColorScheme } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link, Outlet } from "react-router";
import { ask } from "../api/queries";
import { TrailProvider, useTrail } from "./Trail";
import { WhoYouAre } from "./WhoYouAre";

/** The bar on every page: where one is, and the way back. */
export function Shell() {
  return (
    <TrailProvider>
      <div className="shell">
        <div>
          <Bar />
          <Trouble />
        </div>
        <Outlet />
      </div>
    </TrailProvider>
  );
}

/** What keeps the service from working, until it does again. */
function Trouble() {
  const state = useQuery(ask.state());
  const sentence = state.isError
    ? state.error.message
    : state.data?.isWell === false
      ? state.data.sentence
      : "";
  return sentence === "" ? null : (
    <p className="trouble" role="alert">
      ▲ {sentence}
    </p>
  );
}

function Bar() {
  const { trail } = useTrail();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const next = colorScheme === "auto" ? "light" : colorScheme === "light" ? "dark" : "auto";
  return (
    <header className="bar">
      <Link className="name" to="/">
        Daxlin
      </Link>
      <nav aria-label="Pages">
        <Link to="/">Batches</Link>
        <Link to="/review">To look at</Link>
        <Link to="/templates">Templates</Link>
        <Link to="/posting">Posting</Link>
        <Link to="/vendors">Vendors</Link>
        <Link to="/history">History</Link>
        <Link to="/figures">Figures</Link>
      </nav>
      <nav aria-label="Where you are">
        {trail.map((step) => (
          <span key={step.to}>
            {"› "}
            <Link to={step.to}>{step.name}</Link>
          </span>
        ))}
      </nav>
      <span className="end">
        <WhoYouAre /> · <Link to="/help/FIRST-TEMPLATE">Help</Link> · Light:{" "}
        <button type="button" className="plain" onClick={() => setColorScheme(next)}>
          {colorScheme === "auto" ? "as the machine" : colorScheme}
        </button>
      </span>
    </header>
  );
}
