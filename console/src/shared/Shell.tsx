import { Modal, useMantineColorScheme } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { Link, Outlet } from "react-router";
import { Refusal, SIGNED_OUT } from "../api/client";
import { ask } from "../api/queries";
import { SignIn } from "../people/SignIn";
import { TrailProvider, useTrail } from "./Trail";
import { WhoYouAre } from "./WhoYouAre";

/**
 * The bar on every page: where one is, and the way back. Nobody sees a page before signing in; a sign-in that ends while
 * a page is open is asked for above it, so that nothing typed is lost.
 */
export function Shell() {
  const queries = useQueryClient();
  const session = useQuery(ask.session());
  const wasIn = useRef("");
  useEffect(() => {
    const askAgain = () => queries.invalidateQueries({ queryKey: ask.session().queryKey });
    window.addEventListener(SIGNED_OUT, askAgain);
    return () => window.removeEventListener(SIGNED_OUT, askAgain);
  }, [queries]);
  if (session.isPending) {
    return null;
  }
  if (session.data?.isSignedIn) {
    wasIn.current = session.data.name;
  }
  const isIn = session.isError || session.data.isSignedIn;
  if (!isIn && wasIn.current === "") {
    return (
      <main className="welcome">
        <SignIn />
      </main>
    );
  }
  return (
    <TrailProvider>
      <div className="shell">
        <div>
          <Bar />
          <Trouble />
        </div>
        <Outlet />
      </div>
      {!isIn && (
        <Modal opened onClose={() => {}} withCloseButton={false} title="Your sign-in has ended">
          <SignIn again={wasIn.current} />
        </Modal>
      )}
    </TrailProvider>
  );
}

/** What keeps the service from working, until it does again. */
function Trouble() {
  const state = useQuery(ask.state());
  // Who is not signed in any more is asked in a place of its own.
  const isSignedOut = state.error instanceof Refusal && state.error.code === "sign-in-needed";
  const sentence = isSignedOut
    ? ""
    : state.isError
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
  const session = useQuery(ask.session());
  const next = colorScheme === "auto" ? "light" : colorScheme === "light" ? "dark" : "auto";
  return (
    <header className="bar">
      <Link className="name" to="/">
        Daxlin
      </Link>
      <nav aria-label="Pages">
        <Link to="/">Batches</Link>
        <Link to="/sources">Sources</Link>
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
        <WhoYouAre /> ·{" "}
        {session.data?.rights.includes("administer") && (
          <>
            <Link to="/operation">Operation</Link> ·{" "}
          </>
        )}
        <Link to="/help/FIRST-TEMPLATE">Help</Link> · Light:{" "}
        <button type="button" className="plain" onClick={() => setColorScheme(next)}>
          {colorScheme === "auto" ? "as the machine" : colorScheme}
        </button>
      </span>
    </header>
  );
}
